declare module 'bidi-js' {
  /** The Unicode bidirectional algorithm; `levels` has one a UTF-16 unit, odd where it runs from right to left. */
  export default function bidiFactory(): {
    readonly getEmbeddingLevels: (
      text: string,
      direction?: 'ltr' | 'rtl' | 'auto',
    ) => { readonly levels: Uint8Array };
  };
}

'use client';

export default function PageError({ reset }: { readonly reset: () => void }) {
  return (
    <main className="entry">
      <h1>This page could not be made.</h1>
      <p className="quiet">
        Nothing was changed. Try it again; if that does not help, the person who runs this server
        finds the cause in its log.
      </p>
      <button type="button" onClick={reset}>
        Try again
      </button>
    </main>
  );
}

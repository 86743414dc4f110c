/** What a message can say to each recipient in their own words: filled in when it is mailed. */
export const FIELDS = ['recipient', 'organisation', 'documents', 'ends', 'sender'] as const;
export type Field = (typeof FIELDS)[number];

const FIELD = new RegExp(`\\{(${FIELDS.join('|')})\\}`, 'g');

/** A text with its fields filled in. What stands in other braces is left as it is. */
export function fillFields(text: string, values: Readonly<Record<Field, string>>): string {
  return text.replaceAll(FIELD, (_whole, name: Field) => values[name]);
}

/** Whether a text says something else to each recipient. */
export function hasFields(text: string): boolean {
  return text.search(FIELD) >= 0;
}

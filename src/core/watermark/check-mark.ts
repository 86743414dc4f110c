/** What stands on a page that a member of staff looks at as a check. */
export function checkMark(name: string, day: string): string {
  return `Check by ${name}, ${day}`;
}

/** What stands on a page that is shown as somebody else would see it. */
export function previewMark(name: string): string {
  return `preview by ${name}`;
}

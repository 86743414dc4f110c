/** What has to be there. @throws Error where it is not, so that a test says so and not less */
export function present<T>(value: T | null | undefined): T {
  if (value === null || value === undefined) throw new Error('nothing is there');
  return value;
}

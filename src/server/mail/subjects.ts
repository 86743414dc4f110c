/** What dispatches that somebody makes by another act are called. */
export const subjects = {
  passedOn: (subject: string) => `Passed on: ${subject}`,
  given: (names: string) => `Given to ${names}`,
  answer: (title: string) => `Answer about ${title}`,
} as const;

/** Whether a text shows anything: a letter, a digit, a sign. Control characters and marks of writing direction show nothing. */
export const isVisible = (text: string): boolean => /[\p{L}\p{N}\p{P}\p{S}]/u.test(text);

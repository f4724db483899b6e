/** Accuracy classes of tapes: limit a + b per metre, begun; c more where the zero is the end or the hook. mm, from memory. */
export const TAPE_CLASSES = {
  I: { a: 0.1, b: 0.1, hook: 0.1 },
  II: { a: 0.3, b: 0.2, hook: 0.2 },
  III: { a: 0.6, b: 0.4, hook: 0.3 },
} as const;
export type TapeClass = keyof typeof TAPE_CLASSES;

/**
 * Limit of error of a tape over a length, mm. Source: European measuring instruments directive, classes of length measures
 * (from memory).
 * @param lengthMm length read. @param fromHook whether the zero is the hook.
 */
export function tapeLimitMm(tape: TapeClass, lengthMm: number, fromHook = false): number {
  const { a, b, hook } = TAPE_CLASSES[tape];
  return a + b * Math.ceil(lengthMm / 1000) + (fromHook ? hook : 0);
}

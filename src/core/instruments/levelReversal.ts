/** A level read twice at one place, turned end for end between. Same unit in and out. */
interface Reversal {
  zeroError: number;
  slope: number;
  u: number;
}

/**
 * Reversal test. Source: closed form.
 * @param signFrom `level`: each reading's sign is that of the level itself; `world`: signs were noted as the slope lies.
 * @param u standard uncertainty of one reading.
 */
export function levelReversal(first: number, second: number, u: number, signFrom: "level" | "world"): Reversal {
  const [sum, difference] = [(first + second) / 2, (first - second) / 2];
  return signFrom === "level"
    ? { zeroError: sum, slope: difference, u: u / Math.SQRT2 }
    : { zeroError: difference, slope: sum, u: u / Math.SQRT2 };
}

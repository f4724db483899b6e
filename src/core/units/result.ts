/** A value, or what was wrong in words that a person can act on. Exceptions are kept for bugs. */
export type Result<T> = { ok: true; value: T } | { ok: false; message: string };

/** @param value what came out. @returns a successful {@link Result}. */
export const ok = <T>(value: T): Result<T> => ({ ok: true, value });

/** @param message what was wrong and what would be right. @returns a failed {@link Result}. */
export const fail = (message: string): { ok: false; message: string } => ({ ok: false, message });

/** Something wrong (error) or worth a look (warning) at a named field of the job. */
export interface Problem {
  /** Path of the field in the job, for example `frame.width`. */
  path: string;
  message: string;
  severity: "error" | "warning";
}

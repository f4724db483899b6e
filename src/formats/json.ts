import { fail, ok, type Result } from "@/core/units";

class Broken extends Error {}

/** Halves of characters cannot be stored or sent on: a text that holds one came from a broken program. */
function whole(_key: string, value: unknown): unknown {
  if (typeof value === "string" && !value.isWellFormed()) throw new Broken();
  return value;
}

/** Parses JSON whose every text is whole. @returns the value, or what is wrong. */
export function parseJson(text: string): Result<unknown> {
  try {
    return ok(JSON.parse(text.replace(/^\uFEFF/, ""), whole));
  } catch (e) {
    if (e instanceof Broken) return fail("A text in it holds half a character.");
    const cut = e instanceof SyntaxError && /end of JSON|Unterminated/i.test(e.message);
    return fail(cut ? "It is cut short: the end is missing." : "It is not JSON.");
  }
}

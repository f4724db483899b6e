import type { Transport } from "./sender";

/** Gives up on a request after this long, ms. */
const TIMEOUT_MS = 12_000;

/** JSON over fetch. @throws when the server cannot be reached in time. */
export const transport: Transport = async (method, path, body) => {
  const response = await fetch(path, {
    method,
    signal: AbortSignal.timeout(TIMEOUT_MS),
    cache: "no-store",
    ...(body === undefined ? {} : { body: JSON.stringify(body), headers: { "content-type": "application/json" } }),
  });
  const text = await response.text();
  try {
    return { status: response.status, body: text === "" ? null : JSON.parse(text) };
  } catch {
    return { status: response.status, body: null };
  }
};

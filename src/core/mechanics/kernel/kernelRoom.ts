import { LOWER_SIX_HEX } from "./lowerSixBytes";

/** As much of WebAssembly as is used: the core is typed without the names of a browser or of Node. */
declare const WebAssembly:
  | {
      Memory: new (size: { initial: number }) => { buffer: ArrayBuffer };
      Module: new (bytes: Uint8Array) => object;
      Instance: new (module: object, imports: object) => { exports: Record<string, unknown> };
    }
  | undefined;

const PAGE_BYTES = 65536;
const ENTRY_BYTES = 8;
const ROWS = 6;
/** Smaller matrices are updated as fast without it. */
const LEAST = 60;

type Lower = (s: number, n: number, u: number, w: number) => void;

/** Room for a matrix and six rows each of U and W, where the kernel reaches them. */
export interface KernelRoom {
  s: Float64Array;
  u: Float64Array;
  w: Float64Array;
  /** S -= U W, lower half; the last row of an odd size is left out. */
  lower: () => void;
}

let compiled: object | null | undefined;

/** The kernel, compiled once; null where this machine has none of the kind. */
function kernel(): object | null {
  if (compiled === undefined)
    try {
      const bytes = Uint8Array.from(LOWER_SIX_HEX.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
      compiled = WebAssembly ? new WebAssembly.Module(bytes) : null;
    } catch {
      // No vector instructions, or forbidden by the page: the plain way is there.
      compiled = null;
    }
  return compiled;
}

/** @param n size of the matrix. @returns null where the plain way is to be taken: small, no kernel, no memory. */
export function kernelRoom(n: number): KernelRoom | null {
  const module = n >= LEAST ? kernel() : null;
  if (!module || !WebAssembly) return null;
  try {
    const entries = n * n + 2 * ROWS * n;
    const memory = new WebAssembly.Memory({ initial: Math.ceil((entries * ENTRY_BYTES) / PAGE_BYTES) });
    const lower = new WebAssembly.Instance(module, { room: { memory } }).exports.lowerSix as Lower;
    const [u, w] = [n * n * ENTRY_BYTES, (n * n + ROWS * n) * ENTRY_BYTES];
    return {
      s: new Float64Array(memory.buffer, 0, n * n),
      u: new Float64Array(memory.buffer, u, ROWS * n),
      w: new Float64Array(memory.buffer, w, ROWS * n),
      lower: () => lower(0, n, u, w),
    };
  } catch {
    return null;
  }
}

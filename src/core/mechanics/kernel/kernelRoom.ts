import { FLEXIBILITY_HEX } from "./flexibilityBytes";
import { QUASI_DEFINITE_HEX } from "./quasiDefiniteBytes";
import { SIZED_HEX } from "./sizedBytes";

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

/** Room for a symmetric matrix, six rows each of U and W, a push and what it moves, where the kernel reaches them. */
export interface KernelRoom {
  s: Float64Array;
  u: Float64Array;
  w: Float64Array;
  /** S -= U W, lower half; the last row of an odd size is left out. */
  lower: () => void;
  /** Loads, on six columns or all, and how far they move everything. */
  push: Float64Array;
  moved: Float64Array;
  /** moved = S E_c push. @param c even. */
  reach: (c: number) => void;
  /** moved += S push, of all columns. */
  times: () => void;
}

/** Room for a symmetric matrix without pivots and a right side. */
export interface SolvingRoom {
  /** Its lower half, `size` entries to a row; takes L. */
  a: Float64Array;
  /** The right side; takes the answer. */
  b: Float64Array;
  /** @param small least pivot as a share of its diagonal. @returns false where it is singular. */
  solve: (m: number, small: number) => boolean;
}

/** Arrays of one memory, and products of some of them added to another. */
export interface ProductRoom {
  arrays: readonly Float64Array[];
  /**
   * out (rows x columns) += sizes' units. Arrays are told by their places.
   * @param units a row of columns for each of so many sources. @param sizes a row of `rows` sizes for each.
   */
  add: (out: number, rows: number, columns: number, units: number, sizes: number, sources: number) => void;
}

const modules = new Map<string, object | null>();

/** A kernel, compiled once; null where this machine has none of the kind. */
function compiled(hex: string): object | null {
  let module = modules.get(hex);
  if (module === undefined) {
    try {
      const bytes = Uint8Array.from(hex.match(/../g) ?? [], (pair) => Number.parseInt(pair, 16));
      module = WebAssembly ? new WebAssembly.Module(bytes) : null;
    } catch {
      // No vector instructions, or forbidden by the page: the plain way is there.
      module = null;
    }
    modules.set(hex, module);
  }
  return module;
}

/** A memory of so many entries with a kernel that works in it. */
export function started(
  hex: string,
  entries: number,
): { buffer: ArrayBuffer; exports: Record<string, unknown> } | null {
  const module = compiled(hex);
  if (!module || !WebAssembly) return null;
  try {
    const memory = new WebAssembly.Memory({ initial: Math.ceil((entries * ENTRY_BYTES) / PAGE_BYTES) });
    return { buffer: memory.buffer, exports: new WebAssembly.Instance(module, { room: { memory } }).exports };
  } catch {
    return null;
  }
}

/** Arrays of the given lengths, one after the other from the start of a memory, with where each begins. */
export function laid(buffer: ArrayBuffer, lengths: readonly number[]): { arrays: Float64Array[]; starts: number[] } {
  const starts: number[] = [];
  let at = 0;
  const arrays = lengths.map((length) => {
    starts.push(at);
    const array = new Float64Array(buffer, at, length);
    at += length * ENTRY_BYTES;
    return array;
  });
  return { arrays, starts };
}

/** Entries of arrays of those lengths together. */
export const total = (lengths: readonly number[]): number => lengths.reduce((sum, n) => sum + n, 0);

/** @param n size of the matrix. @returns null where the plain way is to be taken: small, no kernel, no memory. */
export function kernelRoom(n: number): KernelRoom | null {
  const lengths = [n * n, ROWS * n, ROWS * n, n, n];
  const kernel = n >= LEAST ? started(FLEXIBILITY_HEX, total(lengths)) : null;
  if (!kernel) return null;
  const lowerSix = kernel.exports.lowerSix as (s: number, n: number, u: number, w: number) => void;
  const reachSix = kernel.exports.reachSix as (s: number, n: number, c: number, q: number, out: number) => void;
  const timesAll = kernel.exports.timesAll as (s: number, n: number, h: number, out: number) => void;
  const { arrays, starts } = laid(kernel.buffer, lengths);
  const [s, u, w, push, moved] = arrays;
  return {
    s,
    u,
    w,
    lower: () => lowerSix(starts[0], n, starts[1], starts[2]),
    push,
    moved,
    reach: (c) => reachSix(starts[0], n, c, starts[3], starts[4]),
    times: () => timesAll(starts[0], n, starts[3], starts[4]),
  };
}

/** @param size most rows. @returns null where this machine has no such kernel. */
export function solvingRoom(size: number): SolvingRoom | null {
  const lengths = [size * size, size, size];
  const kernel = started(QUASI_DEFINITE_HEX, total(lengths));
  if (!kernel) return null;
  const solve = kernel.exports.solve as (
    a: number,
    row: number,
    m: number,
    d: number,
    b: number,
    small: number,
  ) => number;
  const { arrays, starts } = laid(kernel.buffer, lengths);
  const [a, , b] = arrays;
  return {
    a,
    b,
    solve: (m, small) => solve(starts[0], size * ENTRY_BYTES, m, starts[1], starts[2], small) === 1,
  };
}

/** @param lengths of its arrays. @returns null where this machine has no such kernel. */
export function productKernel(lengths: readonly number[]): ProductRoom | null {
  const kernel = started(SIZED_HEX, total(lengths));
  if (!kernel) return null;
  const addSized = kernel.exports.addSized as (
    out: number,
    draws: number,
    outputs: number,
    units: number,
    sizes: number,
    sources: number,
  ) => void;
  const { arrays, starts } = laid(kernel.buffer, lengths);
  return {
    arrays,
    add: (out, rows, columns, units, sizes, sources) =>
      addSized(starts[out], rows, columns, starts[units], starts[sizes], sources),
  };
}

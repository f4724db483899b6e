import type { Sparse } from "../numeric";
import type { CompiledLoads } from "./loadActions";

/** Freedoms of a node. */
const WAYS = 6;

/** Springs and loads of a frame that push on some of its nodes alone. */
export interface Within {
  /** By their places; posts of contacts are none of them. */
  springs: number[];
  loads: number[];
}

/** @param nodes by their places in the model. */
export function within(
  { model, springs, posts, loads }: Pick<CompiledLoads, "model" | "springs" | "posts" | "loads">,
  nodes: ReadonlySet<number>,
): Within {
  const isIn = ({ at }: Sparse): boolean => at.every((f) => nodes.has(Math.floor(f / WAYS)));
  const joints = model.joints.length;
  const places = <T>(all: readonly T[], is: (one: T, i: number) => boolean): number[] =>
    all.flatMap((one, i) => (is(one, i) ? [i] : []));
  return {
    springs: places(springs, ({ rows }, i) => (i < joints || i >= joints + posts) && rows.every(isIn)),
    loads: places(loads, isIn),
  };
}

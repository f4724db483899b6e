import type { JointStiffness } from "./loadActions";

/** Lines and seams of a joint. */
export const LINES = 4;
export const SEAMS = 8;

/**
 * What lines hold and how seams stand, of all draws one after the other. A draw has a row: tension in each line of each joint, N, then by
 * how much the parts at each of its seams overlap, mm; less than nothing where they are apart.
 */
export interface HeldState {
  held: Float64Array;
  /** What each seam of each joint presses with, N. */
  pressed: Float64Array;
}

/** Entries of a draw's row. @param holders how many joints there are. */
export const widthOf = (holders: number): number => (LINES + SEAMS) * holders;
/** Place of a joint's first seam in a draw's row. */
export const seamsFrom = (holders: number, joint: number): number => LINES * holders + SEAMS * joint;

/**
 * Nothing held, every seam as far open as it was fitted.
 * @param gapsMm of each joint in each draw, joint by joint.
 */
export function fittedState(holders: number, gapsMm: Float64Array): HeldState {
  const draws = holders > 0 ? gapsMm.length / holders : 0;
  const width = widthOf(holders);
  const held = new Float64Array(width * draws);
  for (let d = 0; d < draws; d++)
    for (let j = 0; j < holders; j++) {
      const from = d * width + seamsFrom(holders, j);
      held.fill(-gapsMm[d * holders + j], from, from + SEAMS);
    }
  return { held, pressed: new Float64Array(SEAMS * gapsMm.length) };
}
export const copiedState = ({ held, pressed }: HeldState): HeldState => ({
  held: held.slice(),
  pressed: pressed.slice(),
});
export function setState(to: HeldState, from: HeldState): void {
  to.held.set(from.held);
  to.pressed.set(from.pressed);
}

/** Some joints stand as in another state, in every draw. */
export function setJoints(to: HeldState, from: HeldState, holders: number, joints: readonly number[]): void {
  const width = widthOf(holders);
  const take = (into: Float64Array, of: Float64Array, at: number, count: number): void =>
    into.set(of.subarray(at, at + count), at);
  for (let d = 0; d * width < to.held.length; d++)
    for (const j of joints) {
      if (j >= holders) continue;
      take(to.held, from.held, d * width + LINES * j, LINES);
      take(to.held, from.held, d * width + seamsFrom(holders, j), SEAMS);
      take(to.pressed, from.pressed, SEAMS * (d * holders + j), SEAMS);
    }
}

/** How joints `from` on stand: so they stand again when the shape is put back. */
export function rememberSeams(fit: HeldState, state: HeldState, holders: number, from: number): void {
  const width = widthOf(holders);
  for (let d = 0; d * width < state.held.length; d++) {
    const [first, end] = [d * width + seamsFrom(holders, from), (d + 1) * width];
    fit.held.set(state.held.subarray(first, end), first);
    const [pressed, last] = [SEAMS * (d * holders + from), SEAMS * (d + 1) * holders];
    fit.pressed.set(state.pressed.subarray(pressed, last), pressed);
  }
}

/** The shape is put back while the joints still turn: lines and seams let go, gaps are nearer to how they were fitted. */
export function putBack(state: HeldState, fit: HeldState, holders: number, share: number): void {
  const width = widthOf(holders);
  const { held, pressed } = state;
  pressed.set(fit.pressed);
  for (let d = 0; d * width < held.length; d++) {
    const seams = d * width + seamsFrom(holders, 0);
    held.fill(0, d * width, seams);
    for (let i = seams; i < (d + 1) * width; i++) held[i] = fit.held[i] + share * (held[i] - fit.held[i]);
  }
}

/**
 * A joint that is tacked or welded further carries on in another way: what lines and pressures take of the force that the frame puts
 * through it is shared anew. Else a line that held alone when the force came would keep its part for good, and what the others take up when
 * the force goes would stay between them, though a joint with so few lines may have nothing that holds against it. A seam that a bead closes
 * carries on in the bead: what it pressed with, and what lines of the joint held against that by themselves, is between the joint's own walls,
 * as if a bolt were tightened, and is no more part of what a limit counts. (A load that pulls such a joint apart takes pressure off the seam
 * long before the line holds more.)
 * @param before what held at the joint until then. @param after what holds from then on.
 * @param through force that the frame puts through the joint, six for every draw.
 */
export function shareAnew(
  state: HeldState,
  holders: number,
  joint: number,
  before: JointStiffness | null,
  after: JointStiffness,
  through: Float64Array,
): void {
  if (!before) return;
  const width = widthOf(holders);
  const [was, is] = [sharesOf(before), sharesOf(after)];
  for (let d = 0; d * width < state.held.length; d++) {
    const seams = SEAMS * (d * holders + joint);
    for (const { line } of before.lines) {
      let more = 0;
      const from = SHARES * line;
      for (let k = 0; k < 6; k++) more += (is[from + k] - was[from + k]) * through[6 * d + k];
      for (let at = 0, k = from + 6; at < SEAMS; at++, k++) more += (is[k] - was[k]) * state.pressed[seams + at];
      const place = d * width + LINES * joint + line;
      state.held[place] = state.held[place] + more;
    }
  }
}

/** Of a line: of the six ways of the force through its joint, and of what each seam presses with. */
const SHARES = 6 + SEAMS;

/** Shares of joints seen so far. */
const OF_JOINT = new WeakMap<JointStiffness, Float64Array>();

/** What each line of a joint holds of them if nothing was locked in: N = -D' F - (W' + D' V) p. */
function sharesOf(joint: JointStiffness): Float64Array {
  const known = OF_JOINT.get(joint);
  if (known) return known;
  const { free, seams } = joint;
  const into = new Float64Array(SHARES * LINES);
  for (let line = 0; line < LINES; line++) {
    const from = SHARES * line;
    for (let k = 0; k < 6; k++) into[from + k] = -free[LINES * k + line];
    for (const { at, push, closed } of seams) {
      let opens = closed[line];
      for (let k = 0; k < 6; k++) opens += free[LINES * k + line] * push[k];
      into[from + 6 + at] = -opens;
    }
  }
  OF_JOINT.set(joint, into);
  return into;
}

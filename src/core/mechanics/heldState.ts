/** Lines and seams of a joint. */
export const LINES = 4;
export const SEAMS = 8;

/** What lines hold and how seams stand, of all draws one after the other. */
export interface HeldState {
  /** Tension in each line of each joint, N. */
  tensions: Float64Array;
  /** What each seam of each joint presses with, N. */
  pressed: Float64Array;
  /** How far it is open, mm. */
  gaps: Float64Array;
}

/** Nothing held, every seam as far open as it was fitted. @param gapsMm of each joint in each draw, joint by joint. */
export const fittedState = (gapsMm: Float64Array): HeldState => ({
  tensions: new Float64Array(LINES * gapsMm.length),
  pressed: new Float64Array(SEAMS * gapsMm.length),
  gaps: Float64Array.from({ length: SEAMS * gapsMm.length }, (_, i) => gapsMm[Math.floor(i / SEAMS)]),
});
export const copiedState = ({ tensions, pressed, gaps }: HeldState): HeldState => ({
  tensions: tensions.slice(),
  pressed: pressed.slice(),
  gaps: gaps.slice(),
});
export function setState(to: HeldState, from: HeldState): void {
  to.tensions.set(from.tensions);
  to.pressed.set(from.pressed);
  to.gaps.set(from.gaps);
}

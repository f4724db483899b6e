/** A bed or jig point that holds, N/mm and N mm/rad. Stiffer only loses digits. */
export const SUPPORT = { alongNPerMm: 1e9, aboutNmm: 1e12 } as const;
/** Holds a frame without supports against drifting off; reaction-free. N/mm in each of the six rigid motions. */
export const RIGID_HOLD = 1e4;
/**
 * The same where contacts carry the frame: each motion's hold slips at no force at all, so that none of what they push is carried by it
 * (but for a millionth of this, which keeps a frame that nothing pushes where it is).
 */
export const CARRIED_HOLD = 1;

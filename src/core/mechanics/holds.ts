/** A bed or jig point that holds, N/mm and N mm/rad. Stiffer only loses digits. */
export const SUPPORT = { alongNPerMm: 1e9, aboutNmm: 1e12 } as const;
/** Holds a frame without supports against drifting off; reaction-free. N/mm in each of the six rigid motions. */
export const RIGID_HOLD = 1e4;

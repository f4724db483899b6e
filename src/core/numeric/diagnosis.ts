/** Two-sided 0.1 % point of the normal distribution. */
const CRITICAL = 3.29;
/** Standardised residuals this close cannot be told apart. */
const SAME = 0.1;

/** Slips that people make with a tape, mm: a hundred, a ten, a five, half an inch, an inch, a foot. */
const COMMON_SLIPS_MM = [1000, 500, 200, 100, 50, 30, 20, 10, 5, 12.7, 25.4, 304.8] as const;

/** What the diagnosis needs to know of a reading. */
export interface Suspect {
  id: string;
  w: number;
  controlled: boolean;
  slip: number;
  uSlip: number;
}

/** A reading that may be wrong. */
export interface Candidate {
  id: string;
  /** Too large by this, if it is the wrong one. */
  slip: number;
  uSlip: number;
  /** The common slip that is nearest. */
  likeSlip: number;
}

export interface Diagnosis {
  /** `located` only when the numbers single one out. */
  status: "none" | "located" | "detected_not_located";
  candidates: Candidate[];
}

/**
 * Which reading looks misread. Never names one that the numbers cannot name: readings with the same standardised residual
 * are all candidates, ordered by how near their slip is to one that people make.
 * @param readings checked readings of one network.
 */
export function diagnose(readings: Suspect[]): Diagnosis {
  const largest = Math.max(0, ...readings.map((r) => Math.abs(r.w)));
  if (largest <= CRITICAL) return { status: "none", candidates: [] };
  const candidates = readings
    .filter((r) => r.controlled && Math.abs(r.w) > CRITICAL && largest - Math.abs(r.w) <= SAME)
    .map((r) => {
      const off = (s: number) => Math.abs(Math.abs(r.slip) - s);
      const likeSlip = COMMON_SLIPS_MM.reduce((best, s) => (off(s) < off(best) ? s : best));
      return { id: r.id, slip: r.slip, uSlip: r.uSlip, likeSlip, rank: off(likeSlip) / r.uSlip };
    })
    .sort((a, b) => a.rank - b.rank)
    .map(({ rank: _rank, ...candidate }) => candidate);
  return { status: candidates.length === 1 ? "located" : "detected_not_located", candidates };
}

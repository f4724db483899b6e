/** A rectangular tube that uprights are welded along one wall of, bent over a shim meanwhile. */
export interface FibreRail {
  widthMm: number;
  heightMm: number;
  wallMm: number;
  lengthMm: number;
  youngMPa: number;
  yieldMPa: number;
  uprightsMm: readonly number[];
  /** Along the rail and down from the welded wall: so much is hot at once. */
  hotLengthMm: number;
  hotDepthMm: number;
  /** What heated fibres shrink by as they cool. */
  shrink: number;
}

/** Fibres over the depth, and slices of a hot stretch and of a cold one. */
const FIBRES = 40;
const HOT_SLICES = 4;
const COLD_SLICES = 5;
const STEPS = 60;
/** Steps that an interval is widened by before a value is taken to be beyond all bearing. */
const WIDENED = 24;

/** Where a function that never falls meets a value, from a guess on: widened, then by false position (Illinois). */
function rootOf(f: (x: number) => number, wanted: number, guess: number, step: number): number {
  let [low, high] = [guess - step, guess + step];
  let [below, above] = [f(low) - wanted, f(high) - wanted];
  for (let k = 1; k < WIDENED && below > 0; k++) {
    low = guess - step * 2 ** k;
    below = f(low) - wanted;
  }
  for (let k = 1; k < WIDENED && above < 0; k++) {
    high = guess + step * 2 ** k;
    above = f(high) - wanted;
  }
  let side = 0;
  for (let k = 0; k < STEPS && high - low > 1e-9 * step; k++) {
    const x = above > below ? (low * above - high * below) / (above - below) : (low + high) / 2;
    const at = f(x) - wanted;
    if (at === 0) return x;
    if (at < 0) {
      [low, below] = [x, at];
      if (side < 0) above /= 2;
      side = -1;
    } else {
      [high, above] = [x, at];
      if (side > 0) below /= 2;
      side = 1;
    }
    if (Math.abs(at) < 1e-12 * (Math.abs(wanted) + 1)) return x;
  }
  return (low + high) / 2;
}

interface Slice {
  xMm: number;
  longMm: number;
  /** Upright that heats it; -1 for none. */
  upright: number;
  /** Strain of each fibre without stress: plastic, and shrunk. */
  rest: Float64Array;
  hot: boolean;
  /** Middle strain and curvature. */
  strain: number;
  curvature: number;
}

/**
 * A rail of elastic-perfectly plastic fibres: heated ones carry nothing, freeze without stress as they are bent, and shrink to yield. Plane
 * sections, no axial force, moments of a force in the middle with both ends held down; an independent check on the hinges that the product
 * reckons with. Source: any text on plastic bending; a numerical reference of this project.
 * @returns bow in the middle when all is cold and let go, mm: the way that it was bent counts above nought.
 */
export function fibreRail(rail: FibreRail, shimMm: number | null): number {
  const { heightMm: h, wallMm: t, widthMm: w, lengthMm: L, youngMPa: E, yieldMPa } = rail;
  const dy = h / FIBRES;
  // From the middle; the welded wall is the upper one, and is stretched as the rail is bent.
  const y = Array.from({ length: FIBRES }, (_, i) => (i + 0.5) * dy - h / 2);
  const area = y.map((v) => (Math.abs(v) > h / 2 - t ? w : 2 * t) * dy);
  const isWelded = y.map((v) => v > h / 2 - rail.hotDepthMm);
  const slices = slicesOf(rail);

  /** Axial force and moment of a slice. */
  const forces = (s: Slice, strain: number, curvature: number): [n: number, m: number] => {
    let [n, m] = [0, 0];
    for (let i = 0; i < FIBRES; i++) {
      if (s.hot && isWelded[i]) continue;
      const trial = E * (strain + curvature * (y[i] as number) - (s.rest[i] as number));
      const force = Math.max(-yieldMPa, Math.min(yieldMPa, trial)) * (area[i] as number);
      n += force;
      m += force * (y[i] as number);
    }
    return [n, m];
  };
  /** Middle strain at which a slice of some curvature carries no axial force. */
  const strainAt = (s: Slice, curvature: number): number =>
    rootOf((strain) => forces(s, strain, curvature)[0], 0, s.strain, yieldMPa / E);
  /** Settles a slice under a moment: no axial force. Takes what yields into its rest where `keep` says so. */
  const settle = (s: Slice, moment: number, keep: boolean): void => {
    s.curvature = rootOf((k) => forces(s, strainAt(s, k), k)[1], moment, s.curvature, yieldMPa / (E * h));
    s.strain = strainAt(s, s.curvature);
    if (!keep) return;
    for (let i = 0; i < FIBRES; i++) {
      if (s.hot && isWelded[i]) continue;
      const over = s.strain + s.curvature * (y[i] as number) - (s.rest[i] as number);
      const most = yieldMPa / E;
      if (Math.abs(over) > most) s.rest[i] = (s.rest[i] as number) + over - Math.sign(over) * most;
    }
  };
  const arm = (x: number): number => Math.min(x, L - x) / 2;
  /** Bow in the middle under a force there, by virtual work. */
  const bowUnder = (force: number, keep: boolean): number =>
    slices.reduce((sum, s) => {
      const before = [s.strain, s.curvature] as const;
      settle(s, force * arm(s.xMm), keep);
      const { curvature } = s;
      if (!keep) [s.strain, s.curvature] = before;
      return sum + curvature * arm(s.xMm) * s.longMm;
    }, 0);
  let force = 0;
  /** On the shim, or free: the force that holds the middle where it is, then everything settles under it. */
  const hold = (): void => {
    if (shimMm === null) {
      bowUnder(0, true);
      return;
    }
    // A rail that the force would fold up is left at the largest that it bears.
    let [low, high] = [0, (4 * yieldMPa * plastic(rail)) / L];
    for (let k = 0; k < STEPS; k++) {
      const middle = (low + high) / 2;
      if (bowUnder(middle, false) < shimMm) low = middle;
      else high = middle;
      if (high - low < 1e-6 * high) break;
    }
    force = (low + high) / 2;
    bowUnder(force, true);
  };
  hold();
  for (let u = 0; u < rail.uprightsMm.length; u++) {
    const own = slices.filter((s) => s.upright === u);
    for (const s of own) s.hot = true;
    hold();
    for (const s of own) {
      s.hot = false;
      for (let i = 0; i < FIBRES; i++)
        if (isWelded[i]) s.rest[i] = s.strain + s.curvature * (y[i] as number) - rail.shrink;
    }
    hold();
  }
  return bowUnder(0, true);
}

const plastic = ({ widthMm: w, heightMm: h, wallMm: t }: FibreRail): number =>
  (w * h ** 2 - (w - 2 * t) * (h - 2 * t) ** 2) / 4;

/** Hot stretches under the uprights, and what lies between them. */
function slicesOf({ lengthMm, uprightsMm, hotLengthMm }: FibreRail): Slice[] {
  const edges: [from: number, to: number, upright: number][] = [];
  let at = 0;
  uprightsMm.forEach((x, u) => {
    const [from, to] = [x - hotLengthMm / 2, x + hotLengthMm / 2];
    if (from > at) edges.push([at, from, -1]);
    edges.push([from, to, u]);
    at = to;
  });
  if (lengthMm > at) edges.push([at, lengthMm, -1]);
  return edges.flatMap(([from, to, upright]) => {
    const count = upright < 0 ? COLD_SLICES : HOT_SLICES;
    const longMm = (to - from) / count;
    return Array.from({ length: count }, (_, i) => ({
      ...{ xMm: from + (i + 0.5) * longMm, longMm, upright, hot: false, strain: 0, curvature: 0 },
      rest: new Float64Array(FIBRES),
    }));
  });
}

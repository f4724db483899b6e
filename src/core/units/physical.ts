import { fixed, type UnitPreference } from "./format";

/** What is shown in two systems, besides lengths. Kept in SI. */
export type Kind =
  | "length"
  | "slope"
  | "speed"
  | "heat"
  | "mass"
  | "area"
  | "warmth"
  | "force"
  | "run"
  | "feed"
  | "gas"
  | "flow";

interface Shown {
  unit: string;
  /** Shown = kept times this. */
  times: number;
  /** Decimals, where nobody asks for others. */
  decimals: number;
}

/**
 * How each is shown. Exact: inch 25.4 mm, pound 0.45359237 kg (international yard and pound agreement, 1959), foot 12 in,
 * 1 K = 1.8 °F. A slope of 1 mm/m is 12 thou in a foot.
 */
const SHOWN: Record<Kind, { metric: Shown; inch: Shown }> = {
  /** mm; for lengths that are typed as people write them see `length`. */
  length: { metric: { unit: "mm", times: 1, decimals: 2 }, inch: { unit: "in", times: 1 / 25.4, decimals: 4 } },
  /** mm per metre. */
  slope: { metric: { unit: "mm/m", times: 1, decimals: 2 }, inch: { unit: "thou/ft", times: 12, decimals: 1 } },
  /** mm per second. */
  speed: { metric: { unit: "mm/s", times: 1, decimals: 1 }, inch: { unit: "in/min", times: 60 / 25.4, decimals: 1 } },
  /** J per mm. */
  heat: { metric: { unit: "J/mm", times: 1, decimals: 0 }, inch: { unit: "kJ/in", times: 0.0254, decimals: 1 } },
  /** kg. */
  mass: { metric: { unit: "kg", times: 1, decimals: 1 }, inch: { unit: "lb", times: 1 / 0.45359237, decimals: 1 } },
  /** Square metres. */
  area: { metric: { unit: "m²", times: 1, decimals: 2 }, inch: { unit: "ft²", times: 1 / 0.3048 ** 2, decimals: 1 } },
  /** A difference of temperature, K. */
  warmth: { metric: { unit: "°C", times: 1, decimals: 0 }, inch: { unit: "°F", times: 1.8, decimals: 0 } },
  /** Metres of wire or bead. */
  run: { metric: { unit: "m", times: 1, decimals: 0 }, inch: { unit: "ft", times: 1 / 0.3048, decimals: 0 } },
  /** Metres of wire a minute. */
  feed: { metric: { unit: "m/min", times: 1, decimals: 1 }, inch: { unit: "in/min", times: 1 / 0.0254, decimals: 0 } },
  /** Litres. */
  gas: { metric: { unit: "l", times: 1, decimals: 0 }, inch: { unit: "ft³", times: 1 / 28.316846592, decimals: 1 } },
  /** Litres a minute. */
  flow: {
    metric: { unit: "l/min", times: 1, decimals: 0 },
    inch: { unit: "ft³/h", times: 60 / 28.316846592, decimals: 0 },
  },
  /** kN. */
  force: {
    metric: { unit: "kN", times: 1, decimals: 1 },
    inch: { unit: "lbf", times: 1000 / 4.4482216152605, decimals: 0 },
  },
};

const shown = (kind: Kind, units: UnitPreference): Shown => SHOWN[kind][units === "mm" ? "metric" : "inch"];

/** The unit that a kind is shown in: `mm/m`, `thou/ft`. */
export const unitOf = (kind: Kind, units: UnitPreference): string => shown(kind, units).unit;

/** @param value as it is kept. @returns as it is shown. */
export const asShown = (kind: Kind, value: number, units: UnitPreference): number => value * shown(kind, units).times;

/** @param value as it was typed in the unit that is shown. @returns as it is kept. */
export const asKept = (kind: Kind, value: number, units: UnitPreference): number => value / shown(kind, units).times;

/** A field shows what words say where that is the same to this share: what was worked out in the other system reads as its own words. */
const SAME_SHARE = 1e-3;

/** @param value as it is kept. @returns as a field shows it: as everywhere else, with more digits only where they were typed. */
export function inField(kind: Kind, value: number, units: UnitPreference): number {
  const whole = asShown(kind, value, units);
  const usual = +whole.toFixed(shown(kind, units).decimals);
  return Math.abs(usual - whole) < SAME_SHARE * Math.abs(whole) ? usual : +whole.toPrecision(5);
}

/** A quantity with its unit: `10.2 kg`, `22.5 lb`. @param decimals of the shown number; usual ones when left out. */
export function physical(kind: Kind, value: number, units: UnitPreference, decimals?: number, bare = false): string {
  const { unit, decimals: usual } = shown(kind, units);
  const text = fixed(asShown(kind, value, units), decimals ?? usual);
  return bare ? text : `${text} ${unit}`;
}

import { limitName } from "../check";
import { formatSmall, physical, type UnitPreference } from "../units";
import { chanceWords } from "./forecast";
import type { OrderOutlook } from "./orderOutlook";

/** Clamps that hold with less are not told, N. */
const TOLD_N = 20;

const amount = (by: number, unit: "mm" | "mm/m", units: UnitPreference): string =>
  unit === "mm/m" ? physical("slope", by, units) : formatSmall(by, units, { decimals: 1 });

/** The limit that an order keeps most seldom, how far outside of it nine in ten end, and what clamps must hold meanwhile. */
export function worstWords({ worst, holdN }: OrderOutlook, units: UnitPreference): string {
  const parts = [
    ...(worst
      ? [
          `Kept most seldom: ${limitName(worst.limit)}${worst.place ? ` (${worst.place})` : ""}, ${chanceWords(worst.chance)}${worst.outside > 0 ? `, nine in ten end at most ${amount(worst.outside, worst.limit.unit, units)} outside` : ", nine in ten within it"}`,
        ]
      : []),
    ...(holdN >= TOLD_N ? [`clamps hold up to ${physical("force", holdN / 1000, units)} each`] : []),
  ];
  return parts.length > 0 ? `${parts.join("; ").replace(/^./, (c) => c.toUpperCase())}.` : "";
}

/** The steps of an order that matter most for the limit that it keeps most seldom; an empty text where none does. */
export function mostWords({ worst, most }: OrderOutlook, units: UnitPreference): string {
  if (!worst || most.length === 0) return "";
  const about = worst.limit.kind === "flat" ? "the twist of the corners" : (worst.place ?? limitName(worst.limit));
  const each = most.map(
    ({ say, by }) => `${say} (${formatSmall(by, units, { decimals: units === "mm" ? 2 : 1, signed: true })})`,
  );
  return `In it ${about} is moved most, when cold, by ${each.join(", ")}.`;
}

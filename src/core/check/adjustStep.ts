import { footModes, type RestPlace } from "../bed";
import type { Vec2 } from "../numeric";
import { fixed, formatSmall, leavesWords, type UnitPreference } from "../units";
import type { BedVerdict, RestAdvice } from "./bedVerdict";

/** The next thing to do at the rests. */
export interface AdjustStep {
  /** Rest to work on; null when there is nothing left to do. */
  rest: string | null;
  say: string;
  why: string;
}

/** Below this nothing is moved: it is lost in a thread's slack, mm (common practice, no source). */
const LEAST_MM = 0.03;

const work = (r: RestAdvice): number =>
  r.raiseMm === null || (r.stack && r.stack.leavesMm.length === 0) ? 0 : Math.abs(r.raiseMm);

/** How far a rest rose against the others from one round to the next, mm; null when either was not read. */
function roseBy(rest: string, before: BedVerdict, now: BedVerdict): number | null {
  const change = now.rests.flatMap((r) => {
    const was = before.rests.find((b) => b.id === r.id)?.heightMm;
    return r.heightMm === null || was === null || was === undefined ? [] : [{ id: r.id, mm: r.heightMm - was }];
  });
  const own = change.find((c) => c.id === rest);
  const others = change.filter((c) => c.id !== rest);
  if (!own || others.length === 0) return null;
  // Heights are against the lowest: what all the others did together is no move of this one.
  const sorted = others.map((o) => o.mm).sort((a, b) => a - b);
  return own.mm - (sorted[Math.floor(sorted.length / 2)] as number);
}

function lastStep(before: BedVerdict, now: BedVerdict, by: "shims" | "feet", units: UnitPreference): string {
  const asked = [...before.rests].sort((a, b) => work(b) - work(a))[0];
  if (!asked?.raiseMm || work(asked) < LEAST_MM) return "";
  const rose = roseBy(asked.id, before, now);
  if (rose === null) return "";
  const say = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  const share = rose / asked.raiseMm;
  return `${asked.id} was to rise ${say(asked.raiseMm)}, it rose ${say(rose)}${
    share >= 0.5 && share <= 1.5
      ? ""
      : by === "feet"
        ? ", more than slack explains: see that it carries, and that its lock nut is loose while it turns"
        : ", more than the leaves explain: see that they lie under the right rest, clean and flat"
  }. `;
}

/**
 * The next step of bringing a bed right: one rest at a time, the one that is farthest off first, then read again.
 * @param now the last round. @param before the round before it, when there was one.
 * @param places of the rests, to tell a twist from a tilt. @returns null while rests are still to be read.
 */
export function adjustStep(
  now: BedVerdict,
  before: BedVerdict | null,
  by: "shims" | "feet",
  places: readonly RestPlace[],
  units: UnitPreference,
): AdjustStep | null {
  if (now.word === "not measured" || now.missing.length > 0) return null;
  const heard = before ? lastStep(before, now, by, units) : "";
  if (now.word === "good as it is")
    return { rest: null, say: "Leave the rests as they are.", why: "The bed is inside its limits." };
  if (now.word === "good on three rests")
    return {
      rest: null,
      say: "Lay it on the three rests and leave the others clear.",
      why: "Nothing needs to be set: three never rock, however they stand.",
    };
  const next = [...now.rests].sort((a, b) => work(b) - work(a))[0];
  if (!next || next.raiseMm === null || work(next) < LEAST_MM)
    return {
      rest: null,
      say: "Nothing is left to adjust.",
      why: `${heard}What is left is finer than ${by === "feet" ? "a thread" : "the leaves at hand"} can set.`,
    };
  const mm = formatSmall(Math.abs(next.raiseMm), units, { decimals: 2 });
  if (next.raiseMm < 0)
    return {
      rest: next.id,
      say: `${next.id} stands ${mm} too high: lower it, or choose to bring the others up.`,
      why: heard,
    };
  const say = next.foot
    ? `Loosen the lock nut of ${next.id}. Turn its foot ${fixed(next.foot.turns, 2)} turns (${fixed(next.foot.flats, 1)} flats) ${next.foot.direction}, lock it, read ${next.id} again.`
    : `Lay ${leavesWords(next.stack?.leavesMm ?? [], units)} under ${next.id}, then read it again.`;
  const others = now.rests.filter((r) => r.id !== next.id && work(r) >= LEAST_MM).length;
  return {
    rest: next.id,
    say,
    why: `${heard}It is to rise ${mm}${others > 0 ? `; ${others} more after it` : ", the last one"}. ${by === "feet" ? twistWords(now, places, units) : ""}`.trim(),
  };
}

/** Four feet: what part of the turning is twist, which bends no rigid frame. */
function twistWords(now: BedVerdict, places: readonly RestPlace[], units: UnitPreference): string {
  if (places.length !== 4 || now.rests.some((r) => r.raiseMm === null)) return "";
  const cx = places.reduce((s, p) => s + p.x, 0) / 4;
  const cy = places.reduce((s, p) => s + p.y, 0) / 4;
  const round = [...places].sort((a, b) => Math.atan2(a.y - cy, a.x - cx) - Math.atan2(b.y - cy, b.x - cx));
  const modes = footModes(
    round as unknown as [Vec2, Vec2, Vec2, Vec2],
    round.map((p) => now.rests.find((r) => r.id === p.id)?.raiseMm ?? 0),
  );
  const part = Math.max(...(modes?.twistPartMm ?? [0]).map(Math.abs));
  return part < LEAST_MM
    ? ""
    : `Of it ${formatSmall(part, units, { decimals: 2 })} is twist: under a bed it makes it flat; under a rigid frame it would only shift load from foot to foot.`;
}

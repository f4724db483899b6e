import { type Combined, combine } from "./combine";

/** Readings of one quantity with several instruments, held against each other. */
interface Compared {
  all: Combined;
  /** The one that does not fit the others, by place in the list; null when they agree, or when it cannot be told. */
  odd: number | null;
  /** In words a welder would use. */
  say: string;
}

/**
 * Holds readings of one quantity by several instruments against each other. With two that disagree nobody can say which is
 * wrong; with three or more the one without which the others agree is named, if there is only one such.
 * @param readings name of the instrument, value and standard uncertainty (everything, shared or not), any unit.
 */
export function oddOne(readings: readonly { name: string; value: number; u: number }[]): Compared {
  const all = combine(
    readings.map((r) => r.value),
    readings.map((r) => r.u),
  );
  const worst = all.worstPair;
  const names = (pair: readonly number[]): string => pair.map((i) => readings[i]?.name ?? "").join(" and ");
  if (!worst || (all.consistent && worst.en <= 1))
    return { all, odd: null, say: "They agree within what is known of them." };
  if (readings.length === 2)
    return {
      all,
      odd: null,
      say: `${names(worst.pair)} disagree by ${worst.en.toFixed(1)} times what is known of them. Two cannot say which is wrong: read it with a third.`,
    };
  const without = readings.flatMap((_, i) => {
    const rest = readings.filter((__, j) => j !== i);
    const left = combine(
      rest.map((r) => r.value),
      rest.map((r) => r.u),
    );
    return left.consistent && (left.worstPair?.en ?? 0) <= 1 ? [i] : [];
  });
  const [odd] = without;
  return without.length === 1 && odd !== undefined
    ? { all, odd, say: `${readings[odd]?.name} is the odd one: without it the others agree. Test it.` }
    : { all, odd: null, say: `${names(worst.pair)} disagree most, but no single one is the odd one: test them all.` };
}

/** A name that is counted: what stands before its number, and the number. */
const counted = (name: string): [string, number] | null => {
  const found = /^(.*?)(\d+)$/.exec(name);
  return found ? [found[1] ?? "", Number(found[2])] : null;
};

/** From so many on a run is told by its ends. */
const RUN = 3;

/** Names in their order, those that are counted on from each other told by the first and the last: "AB, CD, M1 to M9". */
export function inRuns(names: readonly string[]): string {
  const runs: string[][] = [];
  for (const name of names) {
    const [own, before] = [counted(name), counted(runs.at(-1)?.at(-1) ?? "")];
    if (own && before && own[0] === before[0] && own[1] === before[1] + 1) runs.at(-1)?.push(name);
    else runs.push([name]);
  }
  return runs.flatMap((run) => (run.length >= RUN ? [`${run[0]} to ${run.at(-1)}`] : run)).join(", ");
}

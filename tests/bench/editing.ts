// Measures the frame editor's own work: part of npm run bench

import { performance } from "node:perf_hooks";
import { cutList } from "@/core/cut";

import { type DrawnFrame, moveMembers, resolveStructure, structureProblems } from "@/core/frame";
import { largeFrame } from "../support/largeFrame";

const median = (list: number[]): number => [...list].sort((a, b) => a - b)[Math.floor(list.length / 2)] ?? 0;
function timed(work: () => void, times: number): number {
  for (let i = 0; i < times; i++) work();
  const runs: number[] = [];
  for (let i = 0; i < times; i++) {
    const start = performance.now();
    work();
    runs.push(performance.now() - start);
  }
  return median(runs);
}
const row = (what: string, is: string, note: string) => console.log(`${what.padEnd(58)} ${is.padStart(12)}  ${note}`);

console.log("\ndrawn frames, worked out in Node (median)");
for (const members of [60, 200]) {
  const frame: DrawnFrame = largeFrame(members);
  const id = frame.members[5]?.id ?? "";
  let by = 0;
  row(
    `${members} members: one step of a drag, joints found anew`,
    `${timed(() => {
      by += 5;
      resolveStructure(moveMembers(frame, [id], [by % 40, 0, 0], "mm", true));
    }, 60).toFixed(1)} ms`,
    members === 60 ? "target under 16 ms with drawing" : "",
  );
  const resolved = resolveStructure(frame);
  row(
    `${members} members: problems`,
    `${timed(() => void structureProblems(frame, resolved), 20).toFixed(1)} ms`,
    `${resolved.structure.joints.length} joints`,
  );
  row(`${members} members: cut list`, `${timed(() => void cutList(resolved.structure), 20).toFixed(1)} ms`, "");
}

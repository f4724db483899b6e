import { allowedWords, limitSmallWords, limitValueWords } from "../../check";
import type { Instrument } from "../../instruments";
import { formatLength, formatSmall, physical, type UnitPreference } from "../../units";
import { CARRIES_CAUTION } from "../cautions";
import type { Evaluation } from "../evaluate";
import type { FrameRound } from "../frameRound";
import type { Job } from "../jobSchema";
import { quantityWords } from "../quantityId";
import { fullU, type Mean } from "../rounds";
import type { SheetBlock } from "./sheet";

const VERDICT = { pass: "pass", fail: "FAIL", "too close to call": "too close to call" } as const;

function lengthWords(mean: Mean, units: UnitPreference): string {
  const { what } = mean;
  if (what.kind === "level" || what.kind === "angle")
    return `${physical("slope", mean.mm, units, undefined, true)} ± ${physical("slope", 2 * fullU(mean), units)}`;
  const isLong = what.kind === "distance";
  const value = isLong
    ? formatLength(mean.mm, units, { decimals: 2 }).text
    : formatSmall(mean.mm, units, { decimals: 2 });
  return `${value} ± ${formatSmall(2 * fullU(mean), units, { decimals: 2 })}`;
}

const testedWords = (i: Instrument): string =>
  i.checked
    ? `tested ${i.checked.at.slice(0, 10)}, ${i.checked.test}: ${i.checked.found}`
    : "never tested here: known by its class";

/** Who read it, and when, from the readings themselves. */
function readBy(round: FrameRound): string {
  const who = [...new Set(round.all.map((r) => r.origin))];
  const times = round.all.map((r) => r.at).sort();
  return `${who.join("; ")}, ${times[0]?.slice(0, 16).replace("T", " ") ?? "?"} to ${times.at(-1)?.slice(11, 16) ?? "?"} UTC`;
}

/** What was measured of a cold frame, and what it is not. */
export function certificate(job: Job, evaluation: Evaluation): SheetBlock[] {
  const { units, carries } = job.plan;
  const { cold, limits } = evaluation;
  if (!cold) return [{ kind: "text", text: "Nothing was read of the cold frame yet: there is nothing to certify." }];
  const used = job.instruments.filter((i) => cold.all.some((r) => r.instrumentId === i.id));
  const caution = CARRIES_CAUTION[carries];
  return [
    {
      kind: "text",
      text: `Measured cold, round ${cold.number}, by ${readBy(cold)}. Overall: ${cold.overall === "not measured" ? "not all limits were read" : cold.overall}.`,
    },
    { kind: "heading", text: "Limits" },
    {
      kind: "table",
      columns: [
        { title: "Limit", share: 0.24 },
        { title: "Allowed", share: 0.26 },
        { title: "Measured, ± 95 %", share: 0.28 },
        { title: "Verdict", share: 0.22 },
      ],
      rows: (cold.verdicts.length > 0
        ? cold.verdicts
        : limits.map((limit) => ({ limit, measured: null, result: null }))
      ).map(({ limit, measured, result }) => {
        return [
          limit.label,
          `${allowedWords(limit, units)} (${limit.source})`,
          measured
            ? `${limitValueWords(limit, measured.value, units)} ± ${limitSmallWords(limit, 2 * measured.u, units)}`
            : "not measured",
          result ? VERDICT[result.verdict] : "no verdict",
        ];
      }),
    },
    { kind: "heading", text: "Readings" },
    {
      kind: "table",
      columns: [
        { title: "What", share: 0.26 },
        { title: "Value, ± 95 %", share: 0.34 },
        { title: "Read with", share: 0.4 },
      ],
      rows: [...cold.means.values()].map((m) => {
        const with_ = new Set(
          cold.all.filter((r) => quantityWords(r.what) === quantityWords(m.what)).map((r) => r.instrumentId),
        );
        return [
          quantityWords(m.what),
          lengthWords(m, units),
          used.flatMap((i) => (with_.has(i.id) ? [i.name] : [])).join(", "),
        ];
      }),
    },
    { kind: "heading", text: "Instruments" },
    {
      kind: "table",
      columns: [
        { title: "Instrument", share: 0.4 },
        { title: "Last test", share: 0.6 },
      ],
      rows: used.map((i) => [i.name, testedWords(i)]),
    },
    {
      kind: "text",
      text: "A pass holds although every reading may be off by what is stated; what lies nearer to its limit than that is too close to call. Lengths are at the temperature of the tape.",
    },
    {
      kind: "text",
      text: "This states what was measured and with what. It is no approval: it says nothing of the strength of the welds, nor of anything that was not measured.",
    },
    ...(caution ? [{ kind: "text" as const, text: caution }] : []),
    { kind: "lines", of: ["Measured by", "Accepted by", "Date"] },
  ];
}

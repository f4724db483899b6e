"use client";

import { useMemo } from "react";
import { type Proof, type Provable, provable, slipsThatShow } from "@/core/check";
import { isMarkedIn, markedFirst } from "@/core/instruments";
import { formatSmall, physical, type UnitPreference } from "@/core/units";
import { useJob } from "../job/JobProvider";

const inUnit = (value: number, { limit }: Provable, units: UnitPreference): string =>
  limit.unit === "mm/m" ? physical("slope", value, units) : formatSmall(value, units, { decimals: 2 });

/** Those in the unit of the job first, then the finest; two of each kind are enough to choose from. */
const SHOWN = 2;

function Names({ row, proofs, units }: { row: Provable; proofs: Proof[]; units: UnitPreference }) {
  const other = ({ instrument }: Proof): number => Number(!isMarkedIn(instrument, units));
  const shown = [...proofs].sort((a, b) => other(a) - other(b) || a.uncertainty - b.uncertainty).slice(0, SHOWN);
  return <>{shown.map((p) => `${p.instrument.name} (± ${inUnit(p.uncertainty, row, units)})`).join(", ")}</>;
}

function Row({ row, units }: { row: Provable; units: UnitPreference }) {
  const by = (can: Proof["can"]) => row.proofs.filter((p) => p.can === can);
  const [yes, hardly, no] = [by("yes"), by("hardly"), by("no")];
  return (
    <li className="border-t border-line py-2">
      <strong>{row.limit.label}</strong>{" "}
      {yes.length > 0 ? (
        <>
          can be proven with <Names row={row} proofs={yes} units={units} />.
        </>
      ) : hardly.length > 0 ? (
        <span className="text-close">
          can hardly be proven: with <Names row={row} proofs={hardly} units={units} /> a good frame would often be too
          close to call.
        </span>
      ) : (
        <span className="text-close">cannot be proven with what is on the shelf.</span>
      )}
      {yes.length === 0 && row.wouldDo !== null ? (
        <span> Something good to ± {inUnit(2 * row.wouldDo, row, units)} would do.</span>
      ) : null}
      {no.length > 0 && yes.length > 0 ? (
        <span className="text-soft">
          {" "}
          Not with <Names row={row} proofs={no} units={units} />.
        </span>
      ) : null}
    </li>
  );
}

/** Said before measuring: which limits the instruments at hand can prove, and what would do where they cannot. */
export function WhatCanBeProven({
  kinds,
  share = 1,
}: {
  kinds: readonly Provable["limit"]["kind"][];
  /** Share of each limit that may be used: the bed has half of the frame's. */
  share?: number;
}) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, limits } = evaluation;
  const { units } = job.plan;
  const corners = structure?.quad?.corners ?? null;
  const rows = useMemo(() => {
    if (!corners) return [];
    const asked = limits
      .filter((l) => kinds.includes(l.kind) && l.id !== "CD" && l.id !== "DA" && !l.ofFeet)
      .map((l) =>
        share === 1 || l.upper === null ? l : { ...l, upper: l.upper * share, label: `${l.label} of the bed` },
      );
    return provable(corners, asked, job.instruments);
  }, [corners, limits, job.instruments, kinds, share]);
  const taped = kinds.includes("diagonal");
  const slips = useMemo(() => {
    if (!corners || !taped) return null;
    const all = job.instruments.flatMap((i) => slipsThatShow(corners, i) ?? []);
    return (
      markedFirst(
        all.sort((a, b) => a.diagonalMm - b.diagonalMm).map((s) => ({ ...s.instrument, slips: s })),
        units,
      )[0]?.slips ?? null
    );
  }, [corners, taped, job.instruments, units]);
  return (
    <>
      {rows.length === 0 ? (
        <p className="text-soft">
          {corners
            ? "This job has no such limit."
            : "Worked out for a frame of four corners in one plane, and this one has none."}
        </p>
      ) : (
        <ul className="max-w-prose">
          {rows.map((row) => (
            <Row key={row.limit.id} row={row} units={units} />
          ))}
        </ul>
      )}
      {slips ? (
        <p className="max-w-prose border-t border-line py-2 text-soft">
          What the six lengths show of a misread tape, with {slips.instrument.name}: on a diagonal from{" "}
          <span className="fig">{formatSmall(slips.diagonalMm, units)}</span>, on {slips.side} only from{" "}
          <span className="fig">{formatSmall(slips.sideMm, units)}</span>. Smaller slips pass unseen.
        </p>
      ) : null}
    </>
  );
}

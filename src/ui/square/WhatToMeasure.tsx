"use client";

import { useMemo, useState } from "react";
import { SPANS } from "@/core/geometry";
import { readingUncertainty } from "@/core/instruments";
import { type QuantityId, quantityKey, quantityWords, spanId } from "@/core/job";
import { radians } from "@/core/numeric";
import { type Candidate, cheapestSets, cornerAngleDeg, type PlannedSet, type Quad } from "@/core/square";
import { formatSmall, physical } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { LENGTH_KINDS, shelfOf } from "../measure";
import { SelectField } from "../parts/SelectField";

/** Corners whose angle might be read, each with its neighbours. */
const ANGLES = ["DAB", "ABC", "BCD"] as const;
const angleId = ([from, at, to]: string): QuantityId => ({
  kind: "angle",
  from: from ?? "",
  at: at ?? "",
  to: to ?? "",
});
const WORDS = new Map([...SPANS.map(spanId), ...ANGLES.map(angleId)].map((q) => [quantityKey(q), quantityWords(q)]));
/** A part of the limit that the measuring may be unsure by: enough to pass a good frame. Source: capability 1.6, by habit. */
const SHARE = 1 / 6.4;

function SetWords({
  title,
  set,
  none,
  u,
}: {
  title: string;
  set: PlannedSet | null;
  none: string;
  u: (deg: number) => string;
}) {
  const { units } = useJob("units");
  return (
    <li className="border-t border-line py-2">
      <strong>{title}:</strong>{" "}
      {set ? (
        <>
          <span className="fig">{set.ids.map((id) => WORDS.get(id) ?? id).join(", ")}</span>. Corner A is then known to{" "}
          {u(2 * set.u)};{" "}
          {Number.isFinite(set.detectableMm)
            ? `a misread tape shows from ${formatSmall(set.detectableMm, units)}.`
            : "a misread tape would pass unseen."}
        </>
      ) : (
        <span className="text-close">{none}</span>
      )}
    </li>
  );
}

/** Before anything is measured: the cheapest readings that decide, that notice a slip, and that say which tape slipped. */
export default function WhatToMeasure() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { structure, limits } = evaluation;
  const quad = structure?.quad ?? null;
  const tapes = shelfOf(job.instruments, LENGTH_KINDS).filter((i) => i.kind === "tape");
  const gauges = shelfOf(job.instruments, ["angle gauge"]).filter((i) => i.kind === "angle gauge");
  const [id, setId] = useState(tapes[0]?.id ?? "");
  const tape = tapes.find((t) => t.id === id) ?? tapes[0];
  const square = limits.find((l) => l.id === "square");
  const sets = useMemo(() => {
    if (!quad || !tape) return null;
    const u = readingUncertainty(tape);
    const gauge = gauges[0] ? readingUncertainty(gauges[0]) : null;
    const list: Candidate[] = [
      ...SPANS.map((s) => ({
        cost: 1,
        readings: [
          {
            kind: "distance" as const,
            id: s,
            from: s[0] as string,
            to: s[1] as string,
            valueMm: 0,
            uMm: u.uMm,
            tape: tape.id,
          },
        ],
      })),
      ...(gauge
        ? ANGLES.map((c) => ({
            cost: 2,
            readings: [
              {
                kind: "angle" as const,
                id: quantityKey(angleId(c)),
                from: c[0] as string,
                at: c[1] as string,
                to: c[2] as string,
                valueRad: 0,
                uRad: Math.hypot(gauge.uMm, gauge.uZeroMm) / 1000,
              },
            ],
          }))
        : []),
    ];
    const upper = square?.upper ?? null;
    const wantedDeg =
      upper === null
        ? Number.POSITIVE_INFINITY
        : square?.kind === "corner"
          ? (upper / 1000) * (180 / Math.PI) * 2 * SHARE
          : ((upper * Math.hypot(quad.lengthMm, quad.widthMm)) / (2 * quad.lengthMm * quad.widthMm)) *
            (180 / Math.PI) *
            2 *
            SHARE;
    return cheapestSets(
      quad.corners,
      list,
      { [tape.id]: { uZeroMm: u.uZeroMm, uScale: u.uScale } },
      (fit) => fit.uOf((p) => cornerAngleDeg(p as Quad, "A")),
      wantedDeg,
    );
  }, [quad, tape, gauges, square]);
  if (!quad || !sets || !tape) return null;
  const words = (deg: number): string => `± ${physical("slope", 1000 * radians(deg), job.plan.units)}`;
  return (
    <div className="grid max-w-prose gap-2">
      <SelectField label="With" value={tape.id} options={tapes.map((t) => [t.id, t.name] as const)} onChange={setId} />
      <ul>
        <SetWords
          title="Enough to decide"
          set={sets.decides}
          none="no set of readings with this tape is sure enough for the limit on square. Take a finer one."
          u={words}
        />
        <SetWords title="To notice a misread too" set={sets.notices} none="not with this tape." u={words} />
        <SetWords
          title="To say which one"
          set={sets.locates}
          none="no sides, diagonals and corner angles do: add panels, or the pieces' lengths as they were cut."
          u={words}
        />
      </ul>
    </div>
  );
}

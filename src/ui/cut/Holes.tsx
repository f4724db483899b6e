"use client";

import { FINISHES, type Finish, holeAdvice } from "@/core/cut";
import { formatSmall } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Choice } from "../parts/Choice";
import { Caution, Section } from "../parts/Sheet";

const FINISH_WORDS: Record<Finish, string> = { bare: "bare", paint: "paint", "zinc dip": "hot-dip zinc" };

/** Holes that every closed tube needs before it is welded shut, or dipped. */
export function Holes() {
  const { evaluation } = useJob();
  const { plan, units, edit } = usePlanField();
  const { frame } = evaluation;
  const finish = plan.finish ?? "bare";
  if (!frame) return null;
  const [ring, ...cross] = holeAdvice(frame, finish);
  const first = cross[0];
  const groups = [
    ...(ring ? [{ names: "The four sides", advice: ring }] : []),
    ...(first ? [{ names: cross.map((c) => c.volume.members[0]).join(", "), advice: first }] : []),
  ];
  const total = [ring, ...cross].reduce((s, a) => s + (a?.count ?? 0), 0);
  return (
    <Section title="Holes" aside={<span className="text-sm text-soft">{total} to drill before the last beads</span>}>
      <Choice
        label="Finish"
        value={finish}
        options={FINISHES.map((f) => [f, FINISH_WORDS[f]] as const)}
        onChange={(f) => edit((p) => ({ ...p, finish: f }))}
      />
      <ul className="mt-3 grid max-w-prose gap-2">
        {groups.map(({ names, advice }) => (
          <li key={names} className="border-t border-line pt-2">
            <strong>{names}</strong> <span className="text-soft">({advice.volume.why})</span>:{" "}
            <span className="text-plum">
              {advice.count === 1 ? "one hole" : `${advice.count} holes`} of {formatSmall(advice.diameterMm, units)}
              {cross.length > 1 && advice === first ? " each" : ""}
            </span>
            , {advice.where}.
          </li>
        ))}
      </ul>
      <div className="mt-3">
        <Caution>
          {ring?.why}
          {finish === "zinc dip" ? " Sizes are from memory of EN ISO 14713-2: settle them with the galvanizer." : ""}
        </Caution>
      </div>
    </Section>
  );
}

"use client";

import { onThreeRests, tubeSags } from "@/core/bed";
import { formatLength, formatSmall } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** Where to lay it before anything is built: the three rests, and long tubes that sag on their ends. */
export default function WhereToRest() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { units, bed } = job.plan;
  const { structure, footprint } = evaluation;
  if (!structure || !footprint) return null;
  const places = bed.rests.map((r) => ({ id: r.id, x: r.x.mm, y: r.y.mm }));
  const three = onThreeRests(places, structure);
  const sags = tubeSags(structure).slice(0, 4);
  const small = (mm: number): string => formatSmall(mm, units, { decimals: 2 });
  return (
    <div className="grid max-w-prose gap-3">
      <p>
        {three ? (
          <>
            On three, take <strong className="fig">{three.rests.join(", ")}</strong>: its weight lies{" "}
            {formatSmall(three.marginMm, units)} inside them, and once tacked it sags {small(three.sagMm)} between.
          </>
        ) : (
          "No three of these rests hold it safely: its weight lies too near an edge of every triangle. Move one out, add one, or lay three anew below."
        )}
      </p>
      {sags.length > 0 ? (
        <table className="w-full text-left text-sm">
          <caption className="pb-1 text-left text-soft">
            Loose tubes sag under their own weight. Check straightness with the rests set in, on edge, or looking at it
            sideways.
          </caption>
          <thead className="text-soft">
            <tr>
              <th className="py-1 font-normal">Tube</th>
              <th className="py-1 text-right font-normal">on its ends</th>
              <th className="py-1 text-right font-normal">rests in by</th>
              <th className="py-1 text-right font-normal">then</th>
            </tr>
          </thead>
          <tbody>
            {sags.map((s) => (
              <tr key={s.lengthMm} className="border-t border-line">
                <td className="py-1">
                  {s.members.slice(0, 3).join(", ")}
                  {s.members.length > 3 ? " …" : ""}, {formatLength(s.lengthMm, units, { trim: true }).text}
                </td>
                <td className="fig py-1 text-right">{small(s.onEndsMm)}</td>
                <td className="fig py-1 text-right">{formatLength(s.insetMm, units, { decimals: 0 }).text}</td>
                <td className="fig py-1 text-right">{small(s.setInMm)}</td>
              </tr>
            ))}
          </tbody>
        </table>
      ) : null}
    </div>
  );
}

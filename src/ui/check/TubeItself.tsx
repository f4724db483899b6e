"use client";

import { tubeFits } from "@/core/check";
import { formatSmall } from "@/core/units";
import { useJob } from "../job/JobProvider";

/** What the tube may be off by as it was bought, and what that does to a fit. */
export default function TubeItself() {
  const { evaluation, units } = useJob("evaluation", "units");
  const { structure } = evaluation;
  if (!structure) return null;
  const fits = tubeFits(structure, units);
  return (
    <div className="max-w-prose">
      <ul>
        {fits.map((f) => (
          <li key={f.what} className="border-t border-line py-2">
            <strong>{f.what}</strong>: up to{" "}
            <span className="fig">{formatSmall(f.limitMm, units, { decimals: 1 })}</span>; {f.does}.
          </li>
        ))}
      </ul>
      <p className="text-sm text-soft">
        {fits[0]?.standard}, from memory: confirm against the text or the mill's certificate.
      </p>
    </div>
  );
}

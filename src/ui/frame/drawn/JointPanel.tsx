"use client";

import {
  CARES,
  type Care,
  type DrawnFrame,
  type DrawnJoint,
  type Structure,
  type StructureFace,
  type StructureJoint,
  setJoint,
} from "@/core/frame";
import { formatSmall, type Problem, stated, statedLength, type UnitPreference } from "@/core/units";
import { FieldMessage } from "../../parts/Field";
import { LengthField } from "../../parts/LengthField";
import { NumberField } from "../../parts/NumberField";
import { SelectField } from "../../parts/SelectField";
import { Tick } from "../../parts/Tick";

type Kind = NonNullable<DrawnJoint["kind"]> | "found";

const MEET: Record<StructureJoint["kind"], (j: StructureJoint) => string> = {
  mitre: ({ a, b }) => `${a} and ${b} meet`,
  butt: ({ a, b }) => `${b} ends on ${a}`,
  tee: ({ a, b }) => `${b} ends on ${a}`,
  lap: ({ a, b }) => `${b} lies over ${a}`,
};

/** Pieces of seam on either side of two members that lie along each other; empty: as is usual. */
function PiecesAlong({
  j,
  along,
  said,
  units,
  onChange,
}: {
  j: StructureJoint;
  along: NonNullable<StructureJoint["along"]>;
  said: DrawnJoint["stitches"];
  units: UnitPreference;
  onChange: (stitches: DrawnJoint["stitches"]) => void;
}) {
  const usual = stated(along.seamMm, units);
  return (
    <>
      <p className="text-sm">
        {j.b} lies along {j.a} for <span className="fig">{statedLength(along.overlapMm, units)}</span>, held by{" "}
        <span className="fig">{along.pieces}</span> pieces of seam on either side. What is set here counts for all of
        them.
      </p>
      <div className="grid grid-cols-2 items-end gap-2">
        <NumberField
          label="Pieces (empty: as usual)"
          unit=""
          min={1}
          max={60}
          value={said?.count ?? null}
          optional
          onChange={(count) => onChange(count === null ? undefined : { count, length: said?.length ?? usual })}
        />
        <LengthField
          label="Length of a piece"
          units={units}
          value={said?.length ?? usual}
          onChange={(length) => length && onChange({ count: said?.count ?? along.pieces, length })}
        />
      </div>
    </>
  );
}

/** What one joint is, which of its faces get a bead, and which must stay clear or be ground flush. */
export function JointPanel({
  frame,
  structure,
  joint,
  units,
  problems,
  onEdit,
  onJoint,
}: {
  frame: DrawnFrame;
  structure: Structure;
  joint: string | null;
  units: UnitPreference;
  problems: readonly Problem[];
  onEdit: (frame: DrawnFrame) => void;
  onJoint: (id: string | null) => void;
}) {
  const apart = frame.joints.filter((j) => j.kind === "none");
  const j = structure.joints.find((x) => x.id === joint);
  return (
    <div className="grid gap-3">
      <SelectField
        label="Joint"
        hint={`${structure.joints.length} found`}
        value={j?.id ?? ""}
        options={[
          ["", "pick one, here or on the drawing"],
          ...structure.joints.map((x) => [x.id, `${x.id}: ${x.kind}`] as const),
        ]}
        onChange={(id) => onJoint(id === "" ? null : id)}
      />
      {j ? <OneJoint key={j.id} frame={frame} j={j} units={units} problems={problems} onEdit={onEdit} /> : null}
      {apart.map((x) => (
        <p key={x.between.join()} className="text-sm">
          {x.between[0]} and {x.between[1]} meet but are not joined.{" "}
          <button
            type="button"
            className="underline"
            onClick={() => onEdit(setJoint(frame, x.between[0], x.between[1], { kind: null }))}
          >
            Join them
          </button>
        </p>
      ))}
    </div>
  );
}

function OneJoint({
  frame,
  j,
  units,
  problems,
  onEdit,
}: {
  frame: DrawnFrame;
  j: StructureJoint;
  units: UnitPreference;
  problems: readonly Problem[];
  onEdit: (frame: DrawnFrame) => void;
}) {
  const said = frame.joints.find((x) => x.between.includes(j.a) && x.between.includes(j.b));
  const corner = j.endA !== null && j.endB !== null;
  const set = (what: Partial<Omit<DrawnJoint, "between">>) => onEdit(setJoint(frame, j.a, j.b, what));
  const face = (f: StructureFace, what: Partial<DrawnJoint["faces"][number]>) => {
    const faces = said?.faces ?? [];
    const found = { line: f.line, bead: f.under === undefined, leg: null, care: "none" as const };
    const next = { ...(faces.find((x) => x.line === f.line) ?? found), ...what };
    const isFound = next.bead === found.bead && next.leg === null && next.care === "none";
    set({ faces: [...faces.filter((x) => x.line !== f.line), ...(isFound ? [] : [next])] });
  };
  return (
    <>
      {problems
        .filter((p) => p.path === `frame.drawn.joints.${j.id}`)
        .map((p) => (
          <FieldMessage key={p.message} severity={p.severity}>
            {p.message}
          </FieldMessage>
        ))}
      {j.along ? (
        <PiecesAlong
          j={j}
          along={j.along}
          said={said?.stitches}
          units={units}
          onChange={(stitches) => set({ stitches })}
        />
      ) : (
        <p className="text-sm">
          {MEET[j.kind](j)} at <span className="fig">{j.angleDeg.toFixed(1)}°</span>.
        </p>
      )}
      <div className="grid grid-cols-2 gap-2">
        <SelectField<Kind>
          label="Made as"
          value={said?.kind ?? "found"}
          options={[
            ["found", `${j.said ? "as found" : `${j.kind}, as found`}`],
            ...(corner
              ? ([
                  ["mitre", "mitre"],
                  ["butt", "butt"],
                ] as const)
              : ([[j.kind, j.kind]] as const)),
            ["none", "not joined"],
          ]}
          onChange={(kind) => set({ kind: kind === "found" ? null : kind })}
        />
        {corner && j.kind !== "mitre" ? (
          <SelectField
            label="Runs through"
            value={said?.through ?? ""}
            options={[
              ["", `${j.a}, as found`],
              [j.a, j.a],
              [j.b, j.b],
            ]}
            onChange={(through) => set({ through: through === "" ? null : through })}
          />
        ) : null}
      </div>
      <ul className="grid gap-2">
        {j.faces.map((f) => (
          <li key={f.line} className="grid grid-cols-[1fr_1fr] items-end gap-x-2 border-t border-line pt-2">
            <Tick checked={f.bead} onChange={(bead) => face(f, { bead })}>
              <span>
                Bead on the {f.words}{" "}
                <span className="fig text-sm text-soft">{formatSmall(f.lengthMm, units, { decimals: 0 })}</span>
              </span>
            </Tick>
            <SelectField<Care>
              label={`The ${f.words}`}
              value={f.care}
              options={CARES.map((c) => [c, c === "none" ? "as welded" : c] as const)}
              onChange={(care) => face(f, { care, ...(care === "keep clear" ? { bead: false } : {}) })}
            />
            {f.under ? (
              <p className="col-span-2 text-sm text-soft">
                {f.under} covers it: no torch comes there once that is on
                {f.bead
                  ? `. Move it before ${f.under} in the order of work.`
                  : ", so it gets no bead unless you say so."}
              </p>
            ) : null}
            {f.bead ? (
              <LengthField
                label={`Bead size, ${f.words}`}
                hint="empty: as the wall"
                units={units}
                value={said?.faces.find((x) => x.line === f.line)?.leg ?? null}
                optional
                onChange={(leg) => face(f, { leg })}
                className="col-span-2"
              />
            ) : null}
          </li>
        ))}
      </ul>
    </>
  );
}

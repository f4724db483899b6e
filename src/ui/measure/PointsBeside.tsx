"use client";

import { X } from "lucide-react";
import { useId, useState } from "react";
import { quantityWords } from "@/core/job";
import { type Length, typedText } from "@/core/units";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldFrame, FieldMessage, inputClass } from "../parts/Field";
import { LengthField } from "../parts/LengthField";

const NAME = /^[A-Z][A-Z0-9]{1,9}$/;

/** Points that are no part of the frame and are taped to: a stop, a nail in the floor, the corner of another part. */
export function PointsBeside() {
  const { job, evaluation } = useJob("job", "evaluation");
  const { units, edit } = usePlanField();
  const points = job.plan.points ?? [];
  const { places } = evaluation;
  const free = Array.from({ length: 21 }, (_, i) => `P${i + 1}`).find((n) => !points.some((p) => p.id === n)) ?? "P99";
  const [name, setName] = useState<string | null>(null);
  const [at, setAt] = useState<{ x: Length | null; y: Length | null }>({ x: null, y: null });
  const [said, setSaid] = useState<string | null>(null);
  const [made, setMade] = useState(0);
  const id = useId();
  const own = (name ?? free).trim().toUpperCase();
  const from = places?.nodes.A ? "A" : "the lower left";
  const add = () => {
    if (!NAME.test(own)) return setSaid("Name it by a capital letter and one to nine more letters or digits, as P1.");
    if (places?.nodes[own] || points.some((p) => p.id === own))
      return setSaid(`${own} is a place already: choose another name.`);
    const { x, y } = at;
    if (!x || !y) return setSaid(`Say how far ${own} lies right of ${from} and up from it.`);
    edit((p) => ({ ...p, points: [...(p.points ?? []), { id: own, x, y }] }));
    setSaid(null);
    setName(null);
    setAt({ x: null, y: null });
    setMade(made + 1);
  };
  const used = (point: string): string[] =>
    job.entries.flatMap((e) =>
      e.kind === "reading" && e.value !== null && e.what.kind === "distance" && [e.what.from, e.what.to].includes(point)
        ? [quantityWords(e.what)]
        : [],
    );
  return (
    <fieldset className="grid gap-2 border-t border-line pt-2">
      <legend className="text-sm font-semibold">Points beside the frame</legend>
      {points.map((p) => (
        <p key={p.id} className="flex items-center justify-between gap-2">
          <span>
            <strong className="fig">{p.id}</strong>{" "}
            <span className="fig">
              {typedText(p.x, units)} right, {typedText(p.y, units)} up
            </span>
            {used(p.id).length > 0 ? <span className="text-sm text-soft"> taped to</span> : null}
          </span>
          <Button
            aria-label={`Take out point ${p.id}`}
            onClick={() => edit((plan) => ({ ...plan, points: (plan.points ?? []).filter((q) => q.id !== p.id) }))}
          >
            <X size={18} aria-hidden="true" />
          </Button>
        </p>
      ))}
      <div key={made} className="grid grid-cols-3 gap-2">
        <FieldFrame id={id} label="Name">
          <input
            id={id}
            className={inputClass(false)}
            value={name ?? free}
            maxLength={10}
            onChange={(e) => setName(e.target.value)}
          />
        </FieldFrame>
        <LengthField
          label={`Right of ${from}`}
          units={units}
          value={at.x}
          optional
          onChange={(x) => setAt({ ...at, x })}
        />
        <LengthField
          label={`Up from ${from}`}
          units={units}
          value={at.y}
          optional
          onChange={(y) => setAt({ ...at, y })}
        />
      </div>
      {said ? <FieldMessage severity="error">{said}</FieldMessage> : null}
      <Button className="justify-self-start" onClick={add}>
        Add the point
      </Button>
    </fieldset>
  );
}

"use client";

import { Plus, RotateCcw, Trash2 } from "lucide-react";
import { useState } from "react";
import { fromRectangle, MATERIAL_NAMES, MATERIALS, PROFILES, type Rectangle } from "@/core/frame";
import { fixed, formatLength, stated } from "@/core/units";
import { FrameDrawing } from "../drawing";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { Caution, Now, Section } from "../parts/Sheet";
import { DrawnStage } from "./drawn/DrawnStage";
import { StarterDialog } from "./StarterDialog";

const OWN = "own size";

function SectionFields() {
  const { plan, units, edit, field, forget } = usePlanField();
  const { section } = plan.frame;
  const set = (change: Partial<Rectangle["section"]>) =>
    edit((p) => ({ ...p, frame: { ...p.frame, section: { ...p.frame.section, ...change } } }));
  const known = PROFILES.find((p) => p.name === section.profile);
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <SelectField
        label="Tube"
        value={known?.name ?? OWN}
        options={[...PROFILES.map((p) => [p.name, p.name] as const), [OWN, "own size"] as const]}
        onChange={(name) => {
          const p = PROFILES.find((x) => x.name === name);
          forget("frame.section.");
          if (!p) return set({ profile: null });
          // Rectangular tube stands on edge until it is turned: the stiff way for what lies on the frame.
          set({
            profile: p.name,
            face: stated(p.smallMm, units),
            depth: stated(p.largeMm, units),
            wall: stated(p.wallMm, units),
          });
        }}
        className="sm:col-span-2"
      />
      <LengthField
        label="Width in plan"
        units={units}
        value={section.face}
        {...field("frame.section.face")}
        onChange={(face) => face && set({ face, profile: null })}
      />
      <LengthField
        label="Height"
        units={units}
        value={section.depth}
        {...field("frame.section.depth")}
        onChange={(depth) => depth && set({ depth, profile: null })}
      />
      <LengthField
        label="Wall"
        units={units}
        value={section.wall}
        {...field("frame.section.wall")}
        onChange={(wall) => wall && set({ wall, profile: null })}
      />
      <SelectField
        label="Material"
        value={plan.frame.material}
        options={MATERIAL_NAMES.map((m) => [m, MATERIALS[m].label] as const)}
        onChange={(material) => edit((p) => ({ ...p, frame: { ...p.frame, material } }))}
      />
      {section.face.mm !== section.depth.mm ? (
        <Button
          onClick={() => {
            forget("frame.section.");
            set({ face: section.depth, depth: section.face });
          }}
          className="sm:col-span-2 justify-self-start"
        >
          <RotateCcw size={18} aria-hidden="true" /> Turn the tube:{" "}
          {section.face.mm < section.depth.mm ? "lay it flat" : "stand it on edge"}
        </Button>
      ) : null}
    </div>
  );
}

function CrossFields() {
  const { plan, units, edit, field, forget } = usePlanField();
  const { cross, crossRuns } = plan.frame;
  const [count, setCount] = useState<number | null>(2);
  const set = (change: Partial<Rectangle>) => edit((p) => ({ ...p, frame: { ...p.frame, ...change } }));
  const run = crossRuns === "across" ? plan.frame.length.mm : plan.frame.width.mm;
  const face = plan.frame.section.face.mm;
  const free = Array.from({ length: 99 }, (_, i) => `M${i + 1}`).find((id) => !cross.some((c) => c.id === id));
  /** Middle of the widest gap, between centre lines. */
  const widest = (): number => {
    const at = [face / 2, ...cross.map((c) => c.at.mm).sort((a, b) => a - b), run - face / 2];
    const gaps = at.slice(1).map((x, i) => ({ mid: (x + (at[i] ?? 0)) / 2, size: x - (at[i] ?? 0) }));
    return gaps.reduce((best, g) => (g.size > best.size ? g : best)).mid;
  };
  const equal = (n: number) => {
    // Equal clear gaps between the tubes, sides included.
    forget("frame.cross.");
    const gap = (run - (n + 2) * face) / (n + 1);
    set({
      cross: Array.from({ length: n }, (_, i) => ({
        id: `M${i + 1}`,
        at: stated(face + (i + 1) * gap + (i + 0.5) * face, units),
      })),
    });
  };
  return (
    <div className="grid gap-4">
      <Choice
        label="They run"
        value={crossRuns}
        options={[
          ["across", "from AB to CD"],
          ["along", "from DA to BC"],
        ]}
        onChange={(next) => set({ crossRuns: next })}
      />
      <p className="text-sm text-soft">
        Places are from the outside of {crossRuns === "across" ? "DA" : "AB"} to the centre line of the tube.
      </p>
      {cross.length === 0 ? <p>None yet. Add one, or space several equally.</p> : null}
      <ul className="grid gap-3">
        {cross.map((member, i) => (
          <li key={member.id} className="flex items-start gap-2">
            <LengthField
              label={`${member.id} at`}
              units={units}
              value={member.at}
              {...field(`frame.cross.${i}.at`, `frame.cross.${member.id}.at`)}
              onChange={(at) => at && set({ cross: cross.map((c) => (c.id === member.id ? { ...c, at } : c)) })}
              className="grow"
            />
            <Button
              look="quiet"
              className="mt-6.5"
              aria-label={`Take ${member.id} out`}
              onClick={() => {
                forget(`frame.cross.${member.id}.`);
                set({ cross: cross.filter((c) => c.id !== member.id) });
              }}
            >
              <Trash2 size={18} aria-hidden="true" />
            </Button>
          </li>
        ))}
      </ul>
      <div className="flex flex-wrap items-end gap-2">
        <Button
          disabled={!free || cross.length >= 40}
          onClick={() => free && set({ cross: [...cross, { id: free, at: stated(widest(), units) }] })}
        >
          <Plus size={18} aria-hidden="true" /> Add in the widest gap
        </Button>
        <div className="flex items-end gap-2">
          <NumberField
            label="Equal gaps for"
            unit="members"
            min={0}
            max={40}
            value={count}
            onChange={setCount}
            className="w-36"
          />
          <Button disabled={count === null} onClick={() => equal(Math.round(count ?? 0))}>
            Space equally
          </Button>
        </div>
      </div>
    </div>
  );
}

/** Second stage: the frame, by its sizes or drawn freely. */
export function FrameStage() {
  const { free } = useJob().job.plan;
  return free ? <DrawnStage frame={free} /> : <RectangleStage />;
}

function RectangleStage() {
  const { job, evaluation, store, canUndo, canRedo } = useJob();
  const { plan, units, edit, field } = usePlanField();
  const [picked, setPicked] = useState<string | null>(null);
  const [starting, setStarting] = useState(false);
  const { frame, problems } = evaluation;
  const errors = problems.filter((p) => p.severity === "error" && p.path.startsWith("frame"));
  const member = frame?.members.find((m) => m.name === picked);
  const { caution } = MATERIALS[plan.frame.material];
  return (
    <>
      <h1 className="sr-only">Frame</h1>
      {errors.length > 0 ? (
        <Now
          say="Put right what is marked."
          why="The frame cannot be drawn or cut until then. What you typed is kept."
        />
      ) : (
        <Now
          say={`${formatLength(plan.frame.length.mm, units, { trim: true }).text} × ${formatLength(plan.frame.width.mm, units, { trim: true }).text}, mitred, ${plan.frame.section.profile ?? "own tube"}, ${fixed(frame?.massKg ?? 0, 1)} kg.`}
          why="Corners A to D and the sides keep these names on every later stage. Seam inside, crown outward, by habit."
        />
      )}
      {caution ? <Caution>{caution}</Caution> : null}
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-3">
          {frame ? (
            <FrameDrawing
              frame={frame}
              units={units}
              label={`Frame of ${job.plan.name}: pick a member`}
              selected={picked ? [picked] : []}
              onPick={(name) => setPicked(name === picked ? null : name)}
            />
          ) : (
            <ul className="border-2 border-dashed border-edge p-6">
              {errors.map((e) => (
                <li key={e.path}>
                  <FieldMessage severity="error">{e.message}</FieldMessage>
                </li>
              ))}
            </ul>
          )}
          <p aria-live="polite" className="min-h-6">
            {member ? (
              <>
                <strong>{member.kind === "side" ? `Side ${member.name}` : member.name}</strong>: long point{" "}
                <span className="fig">{formatLength(member.longPointMm, units).text}</span>, short point{" "}
                <span className="fig">{formatLength(member.shortPointMm, units).text}</span>, centre{" "}
                <span className="fig">{formatLength(member.centreMm, units).text}</span>
              </>
            ) : (
              <span className="text-soft">Pick a member to read its lengths.</span>
            )}
          </p>
          <div className="flex gap-2">
            <Button disabled={!canUndo} onClick={() => store.undo()}>
              Undo
            </Button>
            <Button disabled={!canRedo} onClick={() => store.redo()}>
              Redo
            </Button>
          </div>
        </div>
        <div className="grid content-start gap-6">
          <Section title="Outside sizes">
            <div className="grid gap-4 sm:grid-cols-2">
              <LengthField
                label="Length"
                hint="AB, CD"
                units={units}
                value={plan.frame.length}
                {...field("frame.length")}
                onChange={(v) => v && edit((p) => ({ ...p, frame: { ...p.frame, length: v } }))}
              />
              <LengthField
                label="Width"
                hint="BC, DA"
                units={units}
                value={plan.frame.width}
                {...field("frame.width")}
                onChange={(v) => v && edit((p) => ({ ...p, frame: { ...p.frame, width: v } }))}
              />
            </div>
          </Section>
          <Section title="Tube">
            <SectionFields />
          </Section>
          <Section title="Cross members">
            <CrossFields />
          </Section>
          <Section title="Another frame">
            <p className="mb-2 text-soft">
              Gates, stands, drawbars, racks, kinked rails, stacked frames: start from a shape, or draw on from this
              rectangle, member by member.
            </p>
            <div className="flex flex-wrap gap-2">
              <Button onClick={() => setStarting(true)}>Start from a shape</Button>
              <Button disabled={!frame} onClick={() => edit((p) => ({ ...p, free: fromRectangle(p.frame, p.units) }))}>
                Draw on from this rectangle
              </Button>
            </div>
          </Section>
        </div>
      </div>
      {starting ? (
        <StarterDialog
          units={units}
          section={{
            id: "S1",
            shape: "tube",
            profile: plan.frame.section.profile,
            width: plan.frame.section.face,
            height: plan.frame.section.depth,
            wall: plan.frame.section.wall,
            material: plan.frame.material,
          }}
          onStart={(next) => edit((p) => ({ ...p, free: next }))}
          onClose={() => setStarting(false)}
        />
      ) : null}
    </>
  );
}

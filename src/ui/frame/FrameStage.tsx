"use client";

import { Plus, RotateCcw, Trash2 } from "lucide-react";
import dynamic from "next/dynamic";
import { useState } from "react";
import {
  CORNER_WAYS,
  emptyFrame,
  fromRectangle,
  MATERIAL_NAMES,
  MATERIALS,
  PROFILES,
  profilesFor,
  type Rectangle,
} from "@/core/frame";
import { formatLength, nearLength, physical, stated } from "@/core/units";
import { FrameDrawing, useScene } from "../drawing";
import { ReadIn } from "../files/ReadIn";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { NumberField } from "../parts/NumberField";
import { SelectField } from "../parts/SelectField";
import { Caution, Now, Section } from "../parts/Sheet";
import { useWarm } from "../parts/useWarm";
import { drawnAs, sectionOfSizes, withSizes } from "./entry";

// Most frames are rectangles: what draws any other comes with one that is drawn.
const DrawnStage = dynamic(() => import("./drawn/DrawnStage").then((m) => m.DrawnStage), { loading: () => null });
const starter = () => import("./StarterDialog");
const StarterDialog = dynamic(() => starter().then((m) => m.StarterDialog), { ssr: false });
const LATER = [starter];

const OWN = "own size";

function SectionFields() {
  const { plan, units, edit, field, forget } = usePlanField();
  const { section } = plan.frame.sizes;
  const set = (change: Partial<Rectangle["section"]>) =>
    edit((p) => withSizes(p, { section: { ...p.frame.sizes.section, ...change } }));
  const known = PROFILES.find((p) => p.name === section.profile);
  return (
    <div className="grid gap-4 sm:grid-cols-2">
      <SelectField
        label="Tube"
        value={known?.name ?? OWN}
        options={[...profilesFor(units).map((p) => [p.name, p.name] as const), [OWN, "own size"] as const]}
        onChange={(name) => {
          const p = PROFILES.find((x) => x.name === name);
          forget("frame.sizes.section.");
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
        {...field("frame.sizes.section.face")}
        onChange={(face) => face && set({ face, profile: null })}
      />
      <LengthField
        label="Height"
        units={units}
        value={section.depth}
        {...field("frame.sizes.section.depth")}
        onChange={(depth) => depth && set({ depth, profile: null })}
      />
      <LengthField
        label="Wall"
        units={units}
        value={section.wall}
        {...field("frame.sizes.section.wall")}
        onChange={(wall) => wall && set({ wall, profile: null })}
      />
      <SelectField
        label="Material"
        value={plan.frame.sizes.material}
        options={MATERIAL_NAMES.map((m) => [m, MATERIALS[m].label] as const)}
        onChange={(material) => edit((p) => withSizes(p, { material }))}
      />
      {section.face.mm !== section.depth.mm ? (
        <Button
          onClick={() => {
            forget("frame.sizes.section.");
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

/** How the corners are made, and what is left and ground at the joints. */
function CornerFields() {
  const { plan, units, edit, field } = usePlanField();
  const { corners = "mitred", gap, ground = [], caps = false } = plan.frame.sizes;
  const set = (change: Partial<Rectangle>) => edit((p) => withSizes(p, change));
  return (
    <div className="grid gap-4">
      <SelectField
        label="Corners are"
        value={corners}
        options={CORNER_WAYS.map((w) => [w, w === "mitred" ? w : `butted, ${w}`] as const)}
        onChange={(w) => set({ corners: w })}
      />
      <LengthField
        label="Root gap"
        hint="left at every joint"
        units={units}
        optional
        value={gap ?? null}
        {...field("frame.sizes.gap")}
        onChange={(v) => set({ gap: v ?? undefined })}
      />
      <SelectField
        label="Ground flush afterwards"
        value={ground.join(" and ") as "" | "top" | "bottom" | "top and bottom"}
        options={[
          ["", "no face"],
          ["top", "the top face"],
          ["bottom", "the bottom face"],
          ["top and bottom", "top and bottom"],
        ]}
        onChange={(w) => set({ ground: w === "" ? undefined : (w.split(" and ") as ("top" | "bottom")[]) })}
      />
      {corners === "mitred" ? null : (
        <SelectField
          label="Open ends"
          value={caps ? "capped" : "open"}
          options={[
            ["open", "stay open"],
            ["capped", "get a cap each"],
          ]}
          onChange={(w) => set({ caps: w === "capped" ? true : undefined })}
        />
      )}
    </div>
  );
}

function CrossFields() {
  const { plan, units, edit, field, forget } = usePlanField();
  const { cross, crossRuns } = plan.frame.sizes;
  const [count, setCount] = useState<number | null>(2);
  const set = (change: Partial<Rectangle>) => edit((p) => withSizes(p, change));
  const run = crossRuns === "across" ? plan.frame.sizes.length.mm : plan.frame.sizes.width.mm;
  const face = plan.frame.sizes.section.face.mm;
  const free = Array.from({ length: 99 }, (_, i) => `M${i + 1}`).find((id) => !cross.some((c) => c.id === id));
  /** Middle of the widest gap, between centre lines. */
  const widest = (): number => {
    const at = [face / 2, ...cross.map((c) => c.at.mm).sort((a, b) => a - b), run - face / 2];
    const gaps = at.slice(1).map((x, i) => ({ mid: (x + (at[i] ?? 0)) / 2, size: x - (at[i] ?? 0) }));
    return gaps.reduce((best, g) => (g.size > best.size ? g : best)).mid;
  };
  const equal = (n: number) => {
    // Equal clear gaps between the tubes, sides included.
    forget("frame.sizes.cross.");
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
              {...field(`frame.sizes.cross.${i}.at`, `frame.sizes.cross.${member.id}.at`)}
              onChange={(at) => at && set({ cross: cross.map((c) => (c.id === member.id ? { ...c, at } : c)) })}
              className="grow"
            />
            <Button
              look="quiet"
              className="mt-6.5"
              aria-label={`Take ${member.id} out`}
              onClick={() => {
                forget(`frame.sizes.cross.${member.id}.`);
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

/** Second stage: the frame, by its sizes or drawn. */
export function FrameStage() {
  const { frame } = useJob("job").job.plan;
  return frame.by === "members" ? <DrawnStage frame={frame.drawn} /> : <RectangleStage />;
}

function RectangleStage() {
  useWarm(LATER);
  const { job, evaluation, store, canUndo, canRedo } = useJob("job", "evaluation", "store", "canUndo", "canRedo");
  const { plan, units, edit, field } = usePlanField();
  const [picked, setPicked] = useState<string | null>(null);
  const [starting, setStarting] = useState(false);
  const { structure, problems } = evaluation;
  const scene = useScene(structure);
  const errors = problems.filter((p) => p.severity === "error" && p.path.startsWith("frame."));
  const member = structure?.members.find((m) => m.id === picked);
  const section = sectionOfSizes(plan);
  const { caution } = MATERIALS[plan.frame.sizes.material];
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
          say={`${formatLength(plan.frame.sizes.length.mm, units, { trim: true }).text} × ${formatLength(plan.frame.sizes.width.mm, units, { trim: true }).text}, ${plan.frame.sizes.corners && plan.frame.sizes.corners !== "mitred" ? "butted" : "mitred"}, ${plan.frame.sizes.section.profile ?? "own tube"}, ${physical("mass", structure?.massKg ?? 0, units)}.`}
          why="Corners A to D and the sides keep these names on every later stage. Seam inside, crown outward, by habit."
        />
      )}
      {caution ? <Caution>{caution}</Caution> : null}
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-3 xl:sticky xl:top-4 xl:self-start">
          {scene ? (
            <FrameDrawing
              scene={scene}
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
                <strong>{member.id}</strong>: long point <span className="fig">{nearLength(member.longMm, units)}</span>
                , short point <span className="fig">{nearLength(member.shortMm, units)}</span>, centre{" "}
                <span className="fig">{nearLength(member.centreMm, units)}</span>
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
                value={plan.frame.sizes.length}
                {...field("frame.sizes.length")}
                onChange={(v) => v && edit((p) => withSizes(p, { length: v }))}
              />
              <LengthField
                label="Width"
                hint="BC, DA"
                units={units}
                value={plan.frame.sizes.width}
                {...field("frame.sizes.width")}
                onChange={(v) => v && edit((p) => withSizes(p, { width: v }))}
              />
            </div>
          </Section>
          <Section title="Tube">
            <SectionFields />
          </Section>
          <Section title="Corners">
            <CornerFields />
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
              <Button
                disabled={!structure}
                onClick={() => edit((p) => drawnAs(p, fromRectangle(p.frame.sizes, p.units)))}
              >
                Draw on from this rectangle
              </Button>
              <Button onClick={() => edit((p) => drawnAs(p, emptyFrame(section)))}>Start with nothing</Button>
              <ReadIn label="Read a drawing in" />
            </div>
          </Section>
        </div>
      </div>
      {starting ? (
        <StarterDialog
          units={units}
          section={section}
          typed={{ length: plan.frame.sizes.length.mm, width: plan.frame.sizes.width.mm }}
          onStart={(next) => edit((p) => drawnAs(p, next))}
          onClose={() => setStarting(false)}
        />
      ) : null}
    </>
  );
}

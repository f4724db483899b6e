"use client";

import dynamic from "next/dynamic";
import { type KeyboardEvent, useMemo, useState } from "react";
import {
  addMember,
  copyMembers,
  type DrawnFrame,
  deleteMembers,
  groundFaces,
  MATERIALS,
  middleOf,
  moveEnd,
  moveMembers,
  nearMisses,
} from "@/core/frame";
import { builtOf } from "@/core/job";
import type { Vec3 } from "@/core/numeric";
import { formatLength, physical, type UnitPreference } from "@/core/units";
import { VIEWS, type ViewName, WHOLE } from "../../drawing/views";
import { ReadIn } from "../../files/ReadIn";
import { useJob } from "../../job/JobProvider";
import { usePlanField } from "../../job/usePlanField";
import { Button } from "../../parts/Button";
import { Choice } from "../../parts/Choice";
import { Fold } from "../../parts/Fold";
import { Caution, Now, Section } from "../../parts/Sheet";
import { Tick } from "../../parts/Tick";
import { useWarm } from "../../parts/useWarm";
import { bySizes, drawnAs } from "../entry";
import { AddMember, type PointedEnd } from "./AddMember";
import { EditCanvas } from "./EditCanvas";
import { JointPanel } from "./JointPanel";
import { ManyPanel } from "./ManyPanel";
import { MemberPanel } from "./MemberPanel";
import { PartsPanel } from "./PartsPanel";
import { ProblemList } from "./ProblemList";
import { RoomPanel } from "./RoomPanel";
import { SectionsPanel } from "./SectionsPanel";
import { SetsPanel } from "./SetsPanel";
import { SurveyPanel } from "./SurveyPanel";
import { Turning } from "./Turning";
import { ViewControls } from "./ViewControls";

const starter = () => import("../StarterDialog");
const StarterDialog = dynamic(() => starter().then((m) => m.StarterDialog), { ssr: false });
const LATER = [starter];
const Solid = dynamic(() => import("./Solid"), {
  ssr: false,
  loading: () => <p className="p-6 text-soft">Building the body…</p>,
});

type Shown = ViewName | "solid";

/** How a body is looked at to begin with, degrees. */
const TURNED = { turn: 30, tilt: 28 };

/** One step of the arrow keys, and the grid that points fall on. */
const GRID_MM: Record<UnitPreference, number> = { mm: 5, "inch-fraction": 25.4 / 8, "inch-decimal": 2.54 };

/** The frame stage of a drawn frame. */
export function DrawnStage({ frame }: { frame: DrawnFrame }) {
  const { job, evaluation, store, canUndo, canRedo } = useJob("job", "evaluation", "store", "canUndo", "canRedo");
  const { plan, units, edit } = usePlanField();
  useWarm(LATER);
  const [view, setView] = useState<Shown>("plan");
  const [tool, setTool] = useState<"pick" | "draw">("pick");
  const [chosen, setChosen] = useState<string[]>([]);
  const [joint, setJoint] = useState<string | null>(null);
  const [pointed, setPointed] = useState<PointedEnd | null>(null);
  const [together, setTogether] = useState(true);
  const [look, setLook] = useState(WHOLE);
  const [turned, setTurned] = useState(TURNED);
  const [starting, setStarting] = useState(false);
  const { drawn } = builtOf(job.plan);
  const problems = evaluation.problems.filter((p) => p.path.startsWith("frame.drawn."));
  const picked = chosen.filter((id) => frame.members.some((m) => m.id === id));
  const wrong = useMemo(
    () =>
      new Set(
        problems
          .filter((p) => p.severity === "error")
          .flatMap((p) => /^frame\.drawn\.members\.(\w+)/.exec(p.path)?.[1] ?? []),
      ),
    [problems],
  );
  if (!drawn) return null;
  const { structure } = drawn;
  const errors = problems.filter((p) => p.severity === "error");
  const only = picked.length === 1 ? frame.members.find((m) => m.id === picked[0]) : undefined;
  const section = only?.section ?? frame.sections[0]?.id ?? "S1";
  const set = (next: DrawnFrame) => edit((p) => drawnAs(p, next));
  const grid = GRID_MM[units];
  const show = (mm: number): string => formatLength(mm, units, { trim: true }).text;
  const size = structure.high.map((v, i) => v - (structure.low[i] as number)) as [number, number, number];
  const caution = [...new Set(frame.sections.map((s) => MATERIALS[s.material].caution))].find((c) => c !== null);

  const onKey = (e: KeyboardEvent) => {
    if (view === "solid" || (e.target as Element).closest("input, select, textarea")) return;
    const { right, up } = VIEWS[view];
    const step = e.shiftKey ? 10 * grid : grid;
    const ways: Record<string, [number, number]> = {
      ArrowLeft: [right, -step],
      ArrowRight: [right, step],
      ArrowDown: [up, -step],
      ArrowUp: [up, step],
    };
    const way = ways[e.key];
    if (way && picked.length > 0) {
      const by: [number, number, number] = [0, 0, 0];
      by[way[0]] = way[1];
      set(moveMembers(frame, picked, by as Vec3, units, together));
    } else if ((e.key === "Delete" || e.key === "Backspace") && picked.length > 0) {
      set(deleteMembers(frame, picked, plan.units));
      setChosen([]);
    } else if (e.key.toLowerCase() === "a" && (e.ctrlKey || e.metaKey)) setChosen(frame.members.map((m) => m.id));
    else if (e.key.toLowerCase() === "d" && (e.ctrlKey || e.metaKey) && picked.length > 0) {
      const by: [number, number, number] = [0, 0, 0];
      by[right] = 20 * grid;
      const done = copyMembers(frame, picked, by as Vec3, 1, units);
      set(done.frame);
      setChosen(done.ids);
    } else if (e.key === "Escape") {
      if (tool === "draw") setTool("pick");
      else setChosen([]);
    } else return;
    e.preventDefault();
  };
  /** Nearer or farther, on what is picked. */
  const zoom = (by: number) => {
    if (view === "solid") return;
    const { right, up } = VIEWS[view];
    const cut = only && structure.members.find((m) => m.id === only.id);
    const at = cut && middleOf(cut);
    const mid = (k: 0 | 1 | 2): number => (structure.low[k] + structure.high[k]) / 2;
    setLook({ zoom: look.zoom * by, shift: at ? { x: at[right] - mid(right), y: at[up] - mid(up) } : look.shift });
  };
  const shift = (x: number, y: number) => {
    if (view === "solid")
      return setTurned({ turn: turned.turn + 15 * x, tilt: Math.max(-90, Math.min(90, turned.tilt + 15 * y)) });
    const step = (0.2 * Math.max(...size)) / look.zoom;
    setLook({ ...look, shift: { x: look.shift.x + step * x, y: look.shift.y + step * y } });
  };

  return (
    <>
      <h1 className="sr-only">Frame</h1>
      {errors.length > 0 ? (
        <Now
          say={errors[0]?.message ?? ""}
          why={`${errors.length === 1 ? "Until then" : `${errors.length} to put right; until then`} nothing is cut or predicted. What is drawn is kept.`}
        />
      ) : (
        <Now
          say={`${frame.members.length} ${frame.members.length === 1 ? "member" : "members"}, ${show(size[0])} × ${show(size[1])} × ${show(size[2])}, ${physical("mass", structure.massKg, units)}.`}
          why="Ends are drawn on centre lines; joints are found where members meet, and every end is cut to what it meets."
        />
      )}
      {caution ? <Caution>{caution}</Caution> : null}
      <div className="grid gap-8 xl:grid-cols-[minmax(0,1fr)_minmax(0,25rem)]">
        <div className="grid content-start gap-3 xl:sticky xl:top-4 xl:self-start">
          <div className="flex flex-wrap items-end justify-between gap-3">
            <Choice<Shown>
              label="Seen"
              value={view}
              options={[
                ["plan", "from above"],
                ["front", "from the front"],
                ["side", "from the right"],
                ["solid", "as a body"],
              ]}
              onChange={(v) => {
                setView(v);
                setLook(WHOLE);
              }}
            />
            <Choice
              label="Pressing a member"
              value={tool}
              options={[
                ["pick", "picks it, to be moved"],
                ["draw", "begins a new one"],
              ]}
              onChange={setTool}
            />
          </div>
          {view === "solid" ? (
            <div className="border border-line bg-well" data-testid="solid">
              <Solid
                structure={structure}
                picked={picked}
                turnDeg={turned.turn}
                tiltDeg={turned.tilt}
                onPick={(id) => setChosen(picked.includes(id) ? [] : [id])}
                onTurn={(turn, tilt) => setTurned({ turn, tilt })}
              />
            </div>
          ) : (
            <EditCanvas
              frame={frame}
              drawn={drawn}
              units={units}
              view={view}
              tool={tool}
              picked={picked}
              wrong={wrong}
              joint={joint}
              together={together}
              gridMm={grid}
              look={look}
              onPick={setChosen}
              onJoint={setJoint}
              onEnd={setPointed}
              pointed={pointed}
              onEdit={set}
              onDraw={(from, to) => {
                const done = addMember(frame, from, to, section, units);
                if (!done.ok) return;
                set(done.value.frame);
                setChosen([done.value.id]);
              }}
              onKey={onKey}
            />
          )}
          <div className="screen-only flex flex-wrap items-center gap-2">
            <Button disabled={!canUndo} onClick={() => store.undo()}>
              Undo
            </Button>
            <Button disabled={!canRedo} onClick={() => store.redo()}>
              Redo
            </Button>
            <ViewControls
              solid={view === "solid"}
              onZoom={zoom}
              onShift={shift}
              onWhole={() => {
                setLook(WHOLE);
                setTurned(TURNED);
              }}
            />
            <Tick checked={together} onChange={setTogether}>
              corners stay together
            </Tick>
          </div>
          <p className="text-sm text-soft">
            {view === "solid"
              ? "Draw it along to turn it; press a member to pick it."
              : tool === "draw"
                ? "Press where it begins and where it ends. Points are drawn to ends, middles, faces, lines and equal gaps. Escape: back to picking."
                : "Press a member to pick it, with Shift for several; draw it along to move it, or a corner by its square. Arrow keys move what is picked, Delete takes it out."}
          </p>
          <p className="fig text-sm" hidden={errors.some((p) => p.path.startsWith("frame.drawn.sections"))}>
            Centre of mass {structure.centreOfMass.map(show).join(", ")}; outside surface{" "}
            {physical("area", structure.surfaceMm2 / 1e6, units)}.
          </p>
          <ProblemList
            problems={problems}
            misses={nearMisses(drawn.placed, structure.joints)}
            onBring={({ member, end, at }) => set(moveEnd(frame, member, end, at, units))}
            onMember={(id) => setChosen([id])}
            onJoint={setJoint}
          />
        </div>
        <div className="grid content-start gap-4">
          {only ? (
            <Section title={`Member ${only.id}`}>
              <MemberPanel
                key={only.id}
                frame={frame}
                member={only}
                cut={structure.members.find((m) => m.id === only.id)}
                units={units}
                problems={problems.filter((p) => p.path === `frame.drawn.members.${only.id}`)}
                onEdit={set}
                onPick={setChosen}
              />
            </Section>
          ) : null}
          {picked.length > 0 ? (
            <Section
              title={
                picked.length === 1
                  ? "Move, copy, mirror"
                  : `${picked.length} members picked: ${picked.slice(0, 6).join(", ")}${picked.length > 6 ? " …" : ""}`
              }
            >
              <ManyPanel
                frame={frame}
                picked={picked}
                units={units}
                together={together}
                middle={[(structure.low[0] + structure.high[0]) / 2, (structure.low[1] + structure.high[1]) / 2]}
                onEdit={set}
                onPick={setChosen}
              />
            </Section>
          ) : (
            <p className="text-soft">Pick a member to change it.</p>
          )}
          <Fold
            title="Joint"
            note={`${structure.joints.length} found`}
            open={joint !== null}
            key={`joint/${joint !== null}`}
          >
            <JointPanel
              frame={frame}
              structure={structure}
              joint={joint}
              units={units}
              problems={problems}
              onEdit={set}
              onJoint={setJoint}
            />
          </Fold>
          <Fold title="Add a member by numbers" open={frame.members.length === 0}>
            <AddMember
              frame={frame}
              placed={drawn.placed}
              section={section}
              units={units}
              pointed={pointed}
              onEdit={set}
              onPick={setChosen}
            />
          </Fold>
          <Fold title="Sections" note={frame.sections.map((s) => s.profile ?? s.shape).join(", ")}>
            <SectionsPanel frame={frame} units={units} problems={problems} onEdit={set} />
          </Fold>
          <Fold title="Plates, feet, caps" note={frame.parts.length > 0 ? String(frame.parts.length) : "none"}>
            <PartsPanel
              frame={frame}
              structure={structure}
              units={units}
              problems={problems}
              picked={picked}
              pointed={pointed}
              onEdit={set}
            />
          </Fold>
          <Fold title="Faces to be ground">
            <div className="flex flex-wrap gap-2">
              {(["top", "bottom"] as const).map((side) => (
                <Button key={side} onClick={() => set(groundFaces(frame, [side]))}>
                  Grind every bead {side === "top" ? "on top" : "underneath"} flush
                </Button>
              ))}
            </div>
            <p className="mt-2 text-sm text-soft">One joint at a time: pick it in the drawing.</p>
          </Fold>
          <Fold title="How it lies on the bed">
            <Turning frame={frame} />
          </Fold>
          <Fold title="Gaps and largest size">
            <RoomPanel frame={frame} structure={structure} units={units} onEdit={set} />
          </Fold>
          <Fold title="Left and right, sub-assemblies" note={`${frame.pairs.length} / ${frame.groups.length}`}>
            <SetsPanel frame={frame} structure={structure} picked={picked} onEdit={set} />
          </Fold>
          <Fold title="Measured from an object">
            <SurveyPanel frame={frame} section={section} units={units} rightMm={structure.high[0]} onEdit={set} />
          </Fold>
          <div className="flex flex-wrap gap-2 border-t border-line pt-3">
            <Button onClick={() => setStarting(true)}>Start from a shape</Button>
            <ReadIn label="Read a drawing in" />
            <Button onClick={() => edit(bySizes)}>Back to the rectangle by its sizes</Button>
          </div>
        </div>
      </div>
      {starting && frame.sections[0] ? (
        <StarterDialog
          units={plan.units}
          section={frame.sections[0]}
          onStart={(next) => {
            set(next);
            setChosen([]);
            setStarting(false);
          }}
          onClose={() => setStarting(false)}
        />
      ) : null}
    </>
  );
}

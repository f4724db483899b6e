"use client";

import { X } from "lucide-react";
import type { Structure } from "@/core/frame";
import { alongLine, barProposals, type Plan, type PlannedBar, tapedAlong } from "@/core/job";
import { ALONG_WORDS, BAR_KINDS, type BarKind, PUT_ON, type PutOn, TAKEN_OFF, type TakenOff } from "@/core/plan";
import { length } from "@/core/units";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { FieldMessage } from "../parts/Field";
import { LengthField } from "../parts/LengthField";
import { SelectField } from "../parts/SelectField";

type HeldPlan = NonNullable<Plan["held"]>;

/** A plan held otherwise; what nobody says any more goes. */
export const withHeld = (plan: Plan, change: { [K in keyof HeldPlan]?: HeldPlan[K] | undefined }): Plan => {
  const { held, ...rest } = plan;
  const next = Object.fromEntries(
    Object.entries({ ...held, ...change }).filter(([, v]) => v !== undefined && !(Array.isArray(v) && v.length === 0)),
  ) as HeldPlan;
  return Object.keys(next).length > 0 ? { ...rest, held: next } : rest;
};

const KINDS: Record<BarKind, string> = {
  strongback: "Strongback, tacked across on top",
  side: "Temporary side, tacked between",
  block: "Block, only pushes",
};
const ON: Record<PutOn, string> = {
  laid: "when the pieces are laid",
  square: "when it is set square",
  tacked: "when all is tacked",
};
const OFF: Record<TakenOff, string> = { tacked: "when all is tacked", cold: "when it is cold" };

const withBar = (bars: readonly PlannedBar[], bar: PlannedBar): PlannedBar[] =>
  bars.map((b) => (b.id === bar.id ? bar : b));

/** One bar or block: what it is, from where to where, when it goes on and off. */
function BarRow({ structure, bar, bars }: { structure: Structure; bar: PlannedBar; bars: readonly PlannedBar[] }) {
  const { units, edit, field, forget } = usePlanField();
  const set = (change: Partial<PlannedBar>) => edit((p) => withHeld(p, { bars: withBar(bars, { ...bar, ...change }) }));
  const path = `held.bars.${bar.id}`;
  const members = structure.members.map((m) => [m.id, m.id] as const);
  const wrong = (["from", "to", "size.wall"] as const).map((at) => field(`${path}.${at}`).problem);
  const end = (which: "from" | "to", say: string) => {
    const m = structure.members.find((x) => x.id === bar[which].member);
    return (
      <div className="grid grid-cols-2 gap-2">
        <SelectField
          label={say}
          value={bar[which].member}
          options={
            members.some(([id]) => id === bar[which].member)
              ? members
              : [[bar[which].member, `${bar[which].member} (gone)`] as const, ...members]
          }
          onChange={(member) => set({ [which]: { ...bar[which], member } })}
        />
        <LengthField
          label={`${bar.id}, along ${bar[which].member}`}
          units={units}
          value={m ? tapedAlong(m, bar[which].along, units) : bar[which].along}
          {...field(`${path}.${which}.along`)}
          onChange={(taped) =>
            taped && set({ [which]: { ...bar[which], along: m ? alongLine(m, taped, units) : taped } })
          }
        />
      </div>
    );
  };
  return (
    <li className="grid gap-2 border-t border-line py-3" data-testid={`bar-${bar.id}`}>
      <div className="flex items-end gap-2">
        <SelectField
          label={bar.id}
          className="grow"
          value={bar.kind}
          options={BAR_KINDS.map((k) => [k, KINDS[k]] as const)}
          onChange={(kind) => set({ kind })}
        />
        <button
          type="button"
          className="tap inline-grid w-11 shrink-0 place-items-center rounded-[3px] border border-edge"
          aria-label={`Take ${bar.id} away`}
          onClick={() => {
            forget(path);
            edit((p) => withHeld(p, { bars: bars.filter((b) => b.id !== bar.id) }));
          }}
        >
          <X size={18} aria-hidden="true" />
        </button>
      </div>
      <div className="grid gap-2 sm:grid-cols-2">
        {end("from", `${bar.id} from`)}
        {end("to", `${bar.id} to`)}
        <SelectField
          label={`${bar.id} goes on`}
          value={bar.putOn}
          options={PUT_ON.map((k) => [k, ON[k]] as const)}
          onChange={(putOn) => set({ putOn })}
        />
        <SelectField
          label={`${bar.id} comes off`}
          value={bar.takenOff}
          options={TAKEN_OFF.map((k) => [k, OFF[k]] as const)}
          onChange={(takenOff) => set({ takenOff })}
        />
      </div>
      {wrong.map((p) =>
        p ? (
          <FieldMessage key={p.message} severity={p.severity}>
            {p.message}
          </FieldMessage>
        ) : null,
      )}
    </li>
  );
}

const NAMES: Record<BarKind, string> = { strongback: "S", side: "T", block: "B" };

/** Strongbacks, temporary sides and blocks of a plan. */
export function Bars({ structure }: { structure: Structure }) {
  const { plan, units, edit } = usePlanField();
  const bars = plan.held?.bars ?? [];
  const proposed = barProposals(structure, units);
  const groups = [
    ["Two strongbacks crossed", proposed.crossed],
    ["Strongbacks over the corners", proposed.corners],
    ["Temporary side over the mouth", proposed.sides],
    ["Block in the mouth", proposed.blocks],
  ] as const;
  const put = (more: readonly PlannedBar[]) =>
    edit((p) => withHeld(p, { bars: [...bars, ...more.filter((m) => !bars.some((b) => b.id === m.id))] }));
  const own = () => {
    const [a, b] = structure.members;
    if (!a || !b) return;
    const nth = 1 + Math.max(0, ...bars.map((x) => Number(x.id.slice(1)) || 0));
    const from = length("0", units === "mm" ? "mm" : "in");
    put([
      {
        id: `${NAMES.strongback}${nth}`,
        kind: "strongback",
        from: { member: a.id, along: from },
        to: { member: b.id, along: from },
        putOn: "square",
        takenOff: "cold",
      },
    ]);
  };
  return (
    <div className="grid gap-2">
      {bars.length > 0 ? <p className="max-w-prose text-sm text-soft">{ALONG_WORDS}</p> : null}
      {bars.length > 0 ? (
        <ul aria-label="Bars and blocks">
          {bars.map((bar) => (
            <BarRow key={bar.id} structure={structure} bar={bar} bars={bars} />
          ))}
        </ul>
      ) : null}
      <div className="flex flex-wrap gap-2">
        {groups.map(([say, list]) =>
          list.some((b) => !bars.some((x) => x.id === b.id)) ? (
            <Button key={say} onClick={() => put(list)}>
              {say}
            </Button>
          ) : null,
        )}
        {structure.members.length > 1 ? <Button onClick={own}>Another bar</Button> : null}
      </div>
    </div>
  );
}

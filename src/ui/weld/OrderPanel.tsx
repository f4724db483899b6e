"use client";

import dynamic from "next/dynamic";
import Link from "next/link";
import { memo, useId, useState } from "react";
import type { Structure } from "@/core/frame";
import {
  chanceWords,
  EQUAL,
  isCutAndSet,
  materialOf,
  type OrderOutlook,
  orderAdvice,
  paceOf,
  paceWords,
  remedyWords,
  thinnestWallMm,
  timeOf,
  weldOf,
  whyNoPrediction,
  worstWords,
} from "@/core/job";
import {
  canCutAndSet,
  canLieBottomUp,
  chosenOrder,
  notForFrame,
  type Order,
  type OrderChoice,
  orderKey,
  orderWords,
  ownChoice,
  SCHOOL_NAMES,
  schoolWords,
  TACK_SCHOOLS,
  timelineWords,
  timeParts,
  timeWords,
  USUAL_ORDER,
  WELD_SCHOOLS,
} from "@/core/plan";
import type { UnitPreference } from "@/core/units";
import { consumed, consumedWords, discWords, settingsBy } from "@/core/weld";
import { useJob } from "../job/JobProvider";
import { stagePath } from "../job/stages";
import { usePlanField } from "../job/usePlanField";
import { Button, buttonClass } from "../parts/Button";
import { Choice } from "../parts/Choice";
import { FieldMessage } from "../parts/Field";
import { SelectField } from "../parts/SelectField";
import { Hands } from "./Hands";
import { type Planning, useOrderPlanning } from "./useOrderPlanning";

// Comes when orders were compared.
const OrderChart = dynamic(() => import("./OrderChart").then((m) => m.OrderChart), { ssr: false });

/** Orders that a search tries before it ends by itself. */
const TRIALS = 400;
/** How often a frame may be turned over in an order that is searched for. */
const MOST_TURNS = [0, 1, 2, 3, 4, 5, 6];
/** Rows that are shown at first. */
const MOST_SHOWN = 6;

const isSame = (a: OrderChoice, b: OrderChoice): boolean => orderKey(a) === orderKey(b);

/** The schools that an order was begun from, where it is theirs still, step by step; null where it was changed. */
const schoolsOf = (structure: Structure, { tack, weld, bottomUp, steps: all }: Order): OrderChoice | null => {
  const steps = all.filter((s) => s.id.do !== "brace" && s.id.do !== "unbrace");
  const plain: OrderChoice = { by: "schools", tack, weld, ...(bottomUp ? { bottomUp } : {}) };
  const choices: OrderChoice[] = [plain, { ...plain, cutAndSet: true }];
  return (
    choices.find((choice) => {
      const whole = chosenOrder(structure, "surface", choice).steps;
      return (
        whole.length === steps.length && whole.every((s, i) => s.key === steps[i]?.key && s.closes === steps[i].closes)
      );
    }) ?? null
  );
};

/** Beads that are ground flush, mm. */
const flushMm = ({ joints }: Structure): number =>
  joints
    .flatMap((j) => j.faces)
    .filter((f) => f.bead && f.care === "grind flush")
    .reduce((sum, f) => sum + f.lengthMm, 0);

/** Which order the frame is worked in: chosen by school, compared, searched for. Not drawn anew with every step that somebody looks at. */
export const OrderPanel = memo(function OrderPanel({
  onEdit,
  editing,
}: {
  onEdit: (on: boolean) => void;
  editing: boolean;
}) {
  const { job, evaluation } = useJob("job", "evaluation");
  const { plan, edit } = usePlanField();
  const { structure, order, steps, problems, ticked } = evaluation;
  const { planning, begin, enough, stop } = useOrderPlanning(job);
  const id = useId();
  const [asked, setMost] = useState<number | null>(null);
  if (!structure || !order) return null;
  const current = plan.order ?? USUAL_ORDER;
  /** What was chosen besides the schools. */
  const besides = {
    ...(current.by === "schools" && current.together ? { together: true as const } : {}),
    ...(current.by === "schools" && current.cutAndSet ? { cutAndSet: true as const } : {}),
    ...(current.bottomUp ? { bottomUp: true as const } : {}),
  };
  const takeSchools = (change: Partial<Extract<OrderChoice, { by: "schools" }>>) => {
    const { together, cutAndSet, bottomUp, ...schools } = {
      by: "schools" as const,
      tack: order.tack,
      weld: order.weld,
      ...besides,
      ...change,
    };
    take({
      ...schools,
      ...(together ? { together } : {}),
      ...(cutAndSet ? { cutAndSet } : {}),
      ...(bottomUp ? { bottomUp } : {}),
    });
  };
  const take = (choice: OrderChoice) => {
    onEdit(false);
    edit((p) => ({ ...p, order: choice }));
  };
  const fitting = <T extends (typeof TACK_SCHOOLS)[number] | (typeof WELD_SCHOOLS)[number]>(all: readonly T[]) =>
    all.filter((s) => notForFrame(s, structure) === null).map((s) => [s, SCHOOL_NAMES[s]] as const);
  const unfit = [...TACK_SCHOOLS, ...WELD_SCHOOLS].flatMap((s) => {
    const why = notForFrame(s, structure);
    return why ? [`${SCHOOL_NAMES[s]}: ${why}`] : [];
  });
  const wrong = problems.filter((p) => p.path === "order");
  const turns = steps.filter((s) => s.id.do === "flip").length;
  const working = planning !== null && ["schools", "search", "chances"].includes(planning.is);
  // As often as the order as planned, until somebody says how often.
  const most = asked ?? Math.min(turns, MOST_TURNS.at(-1) ?? turns);
  const time = timeOf(job);
  // When all is welded there is nothing left to put in order.
  const isOpen = steps.some((s) => s.id.do === "bead" && !ticked.has(s.key));
  const possible = isOpen && whyNoPrediction(plan) === null;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4" data-testid="order-panel">
      <div className="grid gap-3 sm:grid-cols-2">
        <SelectField
          label="Tacking"
          value={order.tack}
          options={fitting(TACK_SCHOOLS)}
          onChange={(tack) => takeSchools({ tack })}
        />
        <SelectField
          label="Welding"
          value={order.weld}
          options={fitting(WELD_SCHOOLS)}
          onChange={(weld) => takeSchools({ weld })}
        />
      </div>
      {structure.groups.length > 0 ? (
        <Choice
          label="Sub-assemblies"
          value={besides.together ? "together" : "apart"}
          options={[
            ["apart", "One after the other"],
            ["together", "Together, as one frame"],
          ]}
          onChange={(how) =>
            takeSchools(
              how === "together"
                ? { together: true }
                : { together: undefined, cutAndSet: undefined, bottomUp: undefined },
            )
          }
        />
      ) : null}
      {canCutAndSet(structure, current) && !steps.some((s) => s.id.do === "bead" && ticked.has(s.key)) ? (
        <Choice
          label="Squared up"
          value={besides.cutAndSet ? "tacked" : "turning"}
          options={[
            ["turning", "While it turns"],
            ["tacked", "Cut and set once more, all tacked"],
          ]}
          onChange={(when) => takeSchools({ cutAndSet: when === "tacked" ? true : undefined })}
        />
      ) : null}
      {canLieBottomUp(structure, current) && ticked.size === 0 ? (
        <Choice
          label="Laid down"
          value={current.bottomUp ? "bottom" : "top"}
          options={[
            ["top", "Top face up"],
            ["bottom", "Bottom face up"],
          ]}
          onChange={(up) => takeSchools({ bottomUp: up === "bottom" ? true : undefined })}
        />
      ) : null}
      <Hands />
      {order.by === "schools" ? (
        <dl className="grid max-w-prose gap-2">
          {[order.tack, order.weld]
            .map((s) => schoolWords(s, steps))
            .map((s) => (
              <div key={s.name}>
                <dt className="font-semibold">{s.name}</dt>
                <dd>
                  {s.says} <span className="text-soft">{s.why}</span>
                </dd>
              </div>
            ))}
        </dl>
      ) : (
        <p className="max-w-prose">{orderWords(order)}. Choosing a school lays it anew; undo brings this order back.</p>
      )}
      {structure.groups.length > 0 ? (
        <p className="max-w-prose text-sm text-soft">
          One after the other, each is set by itself, and cold before the next is set on. Both ways are compared; no
          search moves their beads.
        </p>
      ) : null}
      {time ? (
        <p className="max-w-prose" data-testid="order-time">
          {timelineWords(time, plan.hands?.two === true)} {paceWords(paceOf(job))}{" "}
          {[...time.arcBy]
            .map(([process, arcS]) =>
              consumedWords(
                consumed(settingsBy(weldOf(plan), process), arcS, thinnestWallMm(plan), materialOf(plan)),
                plan.units,
              ),
            )
            .join(" ")}{" "}
          {discWords(flushMm(structure), plan.units)}
        </p>
      ) : null}
      {unfit.length > 0 ? <p className="max-w-prose text-sm text-soft">{unfit.join(" ")}</p> : null}
      {wrong.map((p) => (
        <FieldMessage key={p.message} severity="warning">
          {p.message}
        </FieldMessage>
      ))}
      {isOpen ? null : <p className="max-w-prose text-sm text-soft">All is welded: no order is left to choose.</p>}
      <div className="flex flex-wrap gap-2">
        {working ? (
          <>
            {planning.is === "search" ? (
              <Button look="advise" onClick={enough}>
                Enough: take the best so far
              </Button>
            ) : null}
            <Button onClick={stop}>Stop</Button>
          </>
        ) : (
          <>
            <Button disabled={!possible} onClick={() => void begin(0, turns)}>
              Compare the schools
            </Button>
            {structure.groups.length === 0 ? (
              <Button disabled={!possible} onClick={() => void begin(TRIALS, most)}>
                Search for a better order
              </Button>
            ) : null}
          </>
        )}
        <Button
          aria-pressed={editing}
          onClick={() => {
            const ids = steps.map((s) => s.id);
            if (!editing && current.by === "schools") edit((p) => ({ ...p, order: ownChoice(order, ids) }));
            // What was changed back is the schools' order still.
            const schools = editing ? schoolsOf(structure, order) : null;
            if (schools) edit((p) => ({ ...p, order: schools }));
            onEdit(!editing);
          }}
        >
          {editing ? "Leave the order so" : "Change it step by step"}
        </Button>
        <Link href={`${stagePath(job.id, "weld")}/print`} className={buttonClass()}>
          On paper
        </Link>
      </div>
      {structure.groups.length === 0 && possible ? (
        <SelectField
          label="In the search, turned over at most"
          value={String(most)}
          options={MOST_TURNS.map((n) => [
            String(n),
            n === 0 ? "never" : n === 1 ? "once" : n === 2 ? "twice" : `${n} times`,
          ])}
          onChange={(n) => setMost(Number(n))}
        />
      ) : null}
      <div aria-live="polite" className="grid grid-cols-[minmax(0,1fr)] gap-3">
        {working ? <p className="text-soft">{doingWords(planning.is, planning.tried)}</p> : null}
        {planning?.is === "failed" ? <p>It could not be worked out. Try again.</p> : null}
        {planning?.is === "known" ? (
          <ul className="grid max-w-prose gap-1" data-testid="order-advice">
            {orderAdvice(planning.outlooks, current, plan.units).words.map((w) => (
              <li key={w}>{w}</li>
            ))}
            {(planning.remedies ? remedyWords(planning.remedies, plan.units) : []).map((w) => (
              <li key={w}>{w}</li>
            ))}
            {planning.searched &&
            planning.outlooks.every((o) => o.choice.by !== "computed" || planning.schools.has(orderKey(o.choice))) ? (
              <li>
                The search found no order that turns it over so seldom
                {plan.holds?.length ? " and keeps what must wait" : ""}: its faces want more.
              </li>
            ) : null}
          </ul>
        ) : null}
      </div>
      {planning?.is === "known" ? <OrderChart outlooks={planning.outlooks} current={current} onTake={take} /> : null}
      {planning ? (
        <Outlooks
          id={id}
          planning={planning}
          current={current}
          units={plan.units}
          two={plan.hands?.two === true}
          onTake={take}
        />
      ) : null}
    </div>
  );
});

const doingWords = (doing: Planning["is"], tried: number): string =>
  doing === "search"
    ? `${tried} orders tried so far.`
    : doing === "chances"
      ? "Working out the chances with draws of their own."
      : "Trying every school on this frame.";

const turnsWords = (n: number): string =>
  n === 0 ? "never turned over" : `turned over ${n === 1 ? "once" : n === 2 ? "twice" : `${n} times`}`;

/** Orders with the chance that every limit is kept, best first. Of the computed ones the best alone. */
function Outlooks({
  id,
  planning: { outlooks, schools },
  current,
  units,
  two,
  onTake,
}: {
  id: string;
  planning: Planning;
  current: OrderChoice;
  units: UnitPreference;
  /** Whether two weld at once. */
  two: boolean;
  onTake: (c: OrderChoice) => void;
}) {
  const isOfSchools = ({ choice }: OrderOutlook): boolean => choice.by === "schools" || schools.has(orderKey(choice));
  const computed = outlooks.find((o) => !isOfSchools(o));
  const shown = outlooks.filter(
    (o, i) =>
      isSame(o.choice, current) ||
      o === computed ||
      (isOfSchools(o) && (i < MOST_SHOWN || isCutAndSet(o.choice) !== isCutAndSet(current))),
  );
  if (shown.length === 0) return null;
  return (
    <table className="w-full border-collapse text-left" aria-labelledby={id} data-testid="outlooks">
      <caption id={id} className="pb-1 text-left text-sm text-soft">
        Chance that every limit is kept; less than {100 * EQUAL} in 100 apart is equal.
      </caption>
      <thead className="sr-only">
        <tr>
          <th scope="col">Order</th>
          <th scope="col">Chance</th>
          <th scope="col">Choose</th>
        </tr>
      </thead>
      <tbody>
        {shown.map((o) => {
          const planned = isSame(o.choice, current);
          return (
            <tr key={orderKey(o.choice)} className="border-t border-line">
              <th scope="row" className={`py-1.5 pr-3 ${planned ? "font-semibold" : "font-normal"}`}>
                {orderWords(o.choice)}
                <span className="block text-sm font-normal text-soft">
                  {planned ? "as planned, " : ""}
                  {turnsWords(o.turns)}, about {timeWords(o.totalS)}: {timeParts(o.parts, two)}
                </span>
                <span className="block text-sm font-normal text-soft">{worstWords(o, units)}</span>
              </th>
              <td className="fig py-1.5 pr-3 text-right whitespace-nowrap">
                {o.chance === null ? "–" : chanceWords(o.chance)}
              </td>
              <td className="py-1.5 text-right">
                {planned ? null : (
                  <Button onClick={() => onTake(o.choice)} aria-label={`Take ${orderWords(o.choice)}`}>
                    Take
                  </Button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}

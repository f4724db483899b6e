"use client";

import { RotateCcw, X } from "lucide-react";
import { firstEndOf } from "@/core/cut";
import { type Structure, type StructureMember, tubeBeginsMm } from "@/core/frame";
import { alongLine, type LaidOut, laidWords, measuredFromWords, type Plan, tapedAlong, thingWords } from "@/core/job";
import { formatLength, type Length, length, type UnitPreference } from "@/core/units";
import { usePlanField } from "../job/usePlanField";
import { Button } from "../parts/Button";
import { Fold } from "../parts/Fold";
import { LengthField } from "../parts/LengthField";

type FixturePlan = NonNullable<Plan["fixture"]>;

/** A plan with its fixture changed; a fixture of which nothing is said any more goes. */
export const withFixture = (plan: Plan, change: Partial<FixturePlan>): Plan => {
  const { fixture, ...rest } = plan;
  const next = Object.fromEntries(
    Object.entries({ ...fixture, ...change }).filter(
      ([, v]) => v !== undefined && !(Array.isArray(v) && v.length === 0),
    ),
  ) as FixturePlan;
  return Object.keys(next).length > 0 ? { ...rest, fixture: next } : rest;
};

/** A length along a member as it is typed in the job's units: a whole mm, a hundredth or a 64th of an inch. */
const alongText = (mm: number, units: UnitPreference) =>
  units === "mm"
    ? length(mm.toFixed(0))
    : length(
        formatLength(
          mm,
          units,
          units === "inch-decimal" ? { decimals: 0, bare: true } : { denominator: 64, bare: true },
        ).text,
        "in",
      );

/** What was typed for an element, else where it is proposed, as it is taped. */
const tapedText = (m: StructureMember, typed: Length | undefined, alongMm: number, units: UnitPreference): Length =>
  typed ? tapedAlong(m, typed, units) : alongText(alongMm - tubeBeginsMm(m), units);

/** A plan with an element placed along its member, as taped to a whole mm or a 64th of an inch. */
export function withPlaced(plan: Plan, m: StructureMember, id: string, alongMm: number): Plan {
  const taped = alongText(alongMm - tubeBeginsMm(m), plan.units);
  return withFixture(plan, {
    moved: [...(plan.fixture?.moved ?? []).filter((x) => x.id !== id), { id, along: alongLine(m, taped, plan.units) }],
  });
}

const iconClass = "tap inline-grid w-11 shrink-0 place-items-center rounded-[3px] border border-edge";

const KINDS = [
  ["stop", "stop", "stops"],
  ["end stop", "end stop", "end stops"],
  ["clamp", "clamp", "clamps"],
  ["square", "square", "squares"],
  ["V-block", "V-block", "V-blocks"],
  ["riser", "riser", "risers"],
] as const;

/** How many of each kind. */
export const countWords = (kinds: readonly string[]): string =>
  KINDS.flatMap(([kind, one, more]) => {
    const n = kinds.filter((k) => k === kind).length;
    return n > 0 ? [`${n} ${n === 1 ? one : more}`] : [];
  }).join(", ");

/** Every element by its member: where along, where on the bed, and why; to be moved, left out, or put back. */
export function Elements({
  structure,
  laid,
  picked,
  onPick,
}: {
  structure: Structure;
  laid: LaidOut;
  picked: string | null;
  onPick: (id: string | null) => void;
}) {
  const { plan, units, edit, field, forget } = usePlanField();
  const { fixture = {} } = plan;
  const without = fixture.without ?? [];
  const moved = fixture.moved ?? [];
  const [first] = laid.fixture.lying;
  const standing = laid.fixture.standing.filter((m) => laid.elements.some((e) => e.element.member === m));
  const reset = (id: string) => {
    forget(`fixture.moved.${id}.`);
    edit((p) => withFixture(p, { moved: (p.fixture?.moved ?? []).filter((m) => m.id !== id) }));
  };
  return (
    <div className="grid gap-2" data-testid="elements">
      {[...laid.fixture.lying, ...standing].map((member) => {
        const own = laid.elements.filter((e) => e.element.member === member);
        const on = structure.members.find((m) => m.id === member) as StructureMember;
        const typed = (id: string) => moved.find((m) => m.id === id)?.along;
        return (
          <Fold key={member} title={member} note={countWords(own.map((e) => e.element.kind))} open={member === first}>
            <p className="text-sm text-soft">Along it is taped {measuredFromWords(firstEndOf(structure, on))}.</p>
            <ul className="border-t border-line">
              {own.map((e) => {
                const { id, kind, alongMm, isPlaced, why } = e.element;
                const name = id.slice(member.length + 1);
                const stands = thingWords(e);
                return (
                  <li
                    key={id}
                    onFocus={() => onPick(id)}
                    onPointerEnter={() => onPick(id)}
                    className={`grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2 border-b border-line py-2 sm:grid-cols-[minmax(0,1fr)_11rem_auto] ${id === picked ? "bg-plum-soft" : ""}`}
                  >
                    <span className="col-span-2 self-center px-1 sm:col-span-1">
                      <span className="font-semibold">{name.charAt(0).toUpperCase() + name.slice(1)}</span>
                      <span className="block">{laidWords(e, units)}</span>
                      {stands ? <span className="block text-sm">{stands}</span> : null}
                      <span className="block text-sm text-soft">{isPlaced ? "Placed by hand." : why}</span>
                    </span>
                    {kind === "end stop" || kind === "square" ? (
                      <span className="text-sm text-soft">
                        {kind === "square" ? "at its foot" : alongMm > 0 ? "at its far end" : "at its beginning"}
                      </span>
                    ) : (
                      <LengthField
                        label={`${id}, along ${member}`}
                        units={units}
                        value={tapedText(on, typed(id), alongMm, units)}
                        {...field(`fixture.moved.${id}.along`)}
                        onChange={(taped) =>
                          taped &&
                          edit((p) =>
                            withFixture(p, {
                              moved: [
                                ...(p.fixture?.moved ?? []).filter((m) => m.id !== id),
                                { id, along: alongLine(on, taped, units) },
                              ],
                            }),
                          )
                        }
                      />
                    )}
                    <span className="flex gap-1">
                      {isPlaced ? (
                        <button
                          type="button"
                          className={iconClass}
                          aria-label={`${id} where it was proposed`}
                          onClick={() => reset(id)}
                        >
                          <RotateCcw size={18} aria-hidden="true" />
                        </button>
                      ) : null}
                      <button
                        type="button"
                        className={iconClass}
                        aria-label={`Leave out ${id}`}
                        onClick={() => edit((p) => withFixture(p, { without: [...(p.fixture?.without ?? []), id] }))}
                      >
                        <X size={18} aria-hidden="true" />
                      </button>
                    </span>
                  </li>
                );
              })}
            </ul>
          </Fold>
        );
      })}
      {without.length > 0 ? (
        <div className="flex flex-wrap items-center gap-2">
          <span className="text-soft">Left out:</span>
          {without.map((id) => (
            <Button
              key={id}
              onClick={() =>
                edit((p) => withFixture(p, { without: (p.fixture?.without ?? []).filter((w) => w !== id) }))
              }
            >
              Put back {id}
            </Button>
          ))}
        </div>
      ) : null}
    </div>
  );
}

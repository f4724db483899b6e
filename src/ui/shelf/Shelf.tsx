"use client";

import { Plus } from "lucide-react";
import { useState } from "react";
import { fullUncertainty, type Instrument, readingUncertainty, readsSlopes, TESTS_OF } from "@/core/instruments";
import { fixed } from "@/core/units";
import { messageOf } from "../job/store/sender";
import { transport } from "../job/store/transport";
import { Button } from "../parts/Button";
import { Now, Section } from "../parts/Sheet";
import { SidePage } from "../parts/SidePage";
import { When } from "../parts/When";
import { Compare } from "./Compare";
import { NewInstrumentDialog } from "./NewInstrumentDialog";
import { SelfTestDialog } from "./SelfTestDialog";

const unitOf = (i: Instrument): string => (readsSlopes(i.kind) ? "mm/m" : "mm");

/** What is known of an instrument, in a line each. */
function known(i: Instrument): string[] {
  const unit = unitOf(i);
  const out: string[] = [];
  if (i.fromMarkMm !== undefined) out.push(`read from its ${i.fromMarkMm} mm mark: that is taken off`);
  if (i.reachMm !== undefined) out.push(`reaches ${i.reachMm} mm`);
  if (i.divisionMmPerM !== undefined) out.push(`one division of its bubble is ${i.divisionMmPerM} mm/m`);
  if (i.readTo && i.readTo !== "edge") out.push(`read to a ${i.readTo}`);
  if (i.foundZeroMm) out.push(`${fixed(i.foundZeroMm, 2)} ${unit} is taken off every reading`);
  if (i.foundScaleMmPerM)
    out.push(
      i.kind === "optical level"
        ? `its sight rises ${fixed(i.foundScaleMmPerM, 3)} mm/m: taken off where sights are noted`
        : `its scale is ${fixed(i.foundScaleMmPerM, 2)} mm/m long: taken off`,
    );
  if (i.leaves) out.push(`${i.leaves.length} leaves measured`);
  if (i.edge) out.push(`bulges up to ${fixed(Math.max(...i.edge.map((e) => Math.abs(e.bulgeMm))), 2)} mm: taken off`);
  if (i.faults) out.push(i.faults);
  if (i.limitsFrom) out.push(`limits: ${i.limitsFrom}`);
  return out;
}

function Card({
  i,
  history,
  onTest,
  onAway,
}: {
  i: Instrument;
  history: number;
  onTest: () => void;
  onAway: () => void;
}) {
  const u = readingUncertainty(i);
  const unit = unitOf(i);
  const long = i.kind === "tape" ? 3000 : 0;
  return (
    <li
      className="grid gap-x-6 gap-y-1 border-t border-line py-3 sm:grid-cols-[minmax(0,1fr)_auto]"
      data-testid={`card-${i.id}`}
    >
      <div>
        <p>
          <strong>{i.name}</strong> <span className="text-sm text-soft">{i.kind}</span>
        </p>
        <p className="fig text-brass">
          ± {fixed(2 * u.uMm, 2)} {unit} a reading
          {u.uZeroMm > 0 ? `, ± ${fixed(2 * u.uZeroMm, 2)} ${unit} in all alike` : ""}
          {long > 0 ? `, ± ${fixed(2 * fullUncertainty(u, long), 2)} mm over 3 m in all` : ""}{" "}
          <span className="text-sm text-soft">(95 %)</span>
        </p>
        <p className="text-sm text-soft">
          Step {i.resolutionMm} {unit}, handling ± {i.handlingMm} {unit}
          {known(i).map((k) => `; ${k}`)}.
        </p>
        <p className="text-sm">
          {i.checked ? (
            <>
              Tested <When at={i.checked.at} short /> by {i.checked.test === "two pegs" ? "two pegs" : i.checked.test}:{" "}
              {i.checked.found}
              {history > 1 ? `, ${history} cards before this one` : ""}
            </>
          ) : TESTS_OF[i.kind].length > 0 ? (
            <span className="text-close">never tested here: known by its class or by habit</span>
          ) : null}
        </p>
      </div>
      <div className="flex flex-wrap gap-2 self-start">
        {TESTS_OF[i.kind].length > 0 ? (
          <Button aria-label={`Test it: ${i.name}`} onClick={onTest}>
            Test it
          </Button>
        ) : null}
        <Button aria-label={`Put away: ${i.name}`} onClick={onAway}>
          Put away
        </Button>
      </div>
    </li>
  );
}

function withAway({ away: _old, ...card }: Instrument, away: boolean): Instrument {
  return away ? { ...card, away: true } : card;
}

/** The shop's instruments: what is known of each decides how far a verdict can be trusted. */
export function Shelf({ instruments }: { instruments: Instrument[] }) {
  const [all, setAll] = useState(instruments);
  const [testing, setTesting] = useState<Instrument | null>(null);
  const [making, setMaking] = useState(false);
  const [said, setSaid] = useState<string | null>(null);
  const gone = new Set(all.flatMap((i) => (i.replaces ? [i.replaces] : [])));
  const mine = all.filter((i) => !gone.has(i.id));
  const here = mine.filter((i) => !i.away);
  const away = mine.filter((i) => i.away);
  const put = async (i: Instrument, isAway: boolean) => {
    try {
      const { status, body } = await transport("PUT", `/api/instruments/${encodeURIComponent(i.id)}/away`, {
        away: isAway,
      });
      if (status !== 200) return setSaid(messageOf(body));
      setAll((list) => list.map((o) => (o.id === i.id ? withAway(o, isAway) : o)));
      setSaid(isAway ? `${i.name} is put away: its readings keep it.` : `${i.name} is back on the shelf.`);
    } catch {
      setSaid("The server cannot be reached just now.");
    }
  };
  const before = (i: Instrument): number => {
    let n = 0;
    for (let at = i.replaces; at !== undefined; at = all.find((o) => o.id === at)?.replaces) n++;
    return n;
  };
  const untested = here.filter((i) => !i.checked && TESTS_OF[i.kind].length > 0);
  return (
    <SidePage title="Shelf of instruments">
      <Now
        say={said ?? (untested.length > 0 ? "Test what you measure with." : "The shelf is tested.")}
        why="A test takes minutes: a level turned end for end, a tape read from the hook and from a mark, a level on two pegs. What it finds is taken off every reading from then on; earlier readings keep what was known when they were made."
      />
      <Section
        title={`${here.length} instruments`}
        aside={
          <Button onClick={() => setMaking(true)}>
            <Plus size={18} aria-hidden="true" /> Another instrument
          </Button>
        }
      >
        <ul>
          {here.map((i) => (
            <Card key={i.id} i={i} history={before(i)} onTest={() => setTesting(i)} onAway={() => void put(i, true)} />
          ))}
        </ul>
      </Section>
      {away.length > 0 ? (
        <Section title={`${away.length} put away`}>
          <ul>
            {away.map((i) => (
              <li key={i.id} className="flex items-center justify-between gap-4 border-t border-line py-2">
                <span>
                  {i.name} <span className="text-sm text-soft">{i.kind}</span>
                </span>
                <Button aria-label={`Put back: ${i.name}`} onClick={() => void put(i, false)}>
                  Put back
                </Button>
              </li>
            ))}
          </ul>
        </Section>
      ) : null}
      <Compare instruments={here} />
      {testing ? (
        <SelfTestDialog
          instrument={testing}
          onClose={() => setTesting(null)}
          onMade={(i, say) => {
            setAll((list) => [...list, i]);
            setSaid(say);
            setTesting(null);
          }}
        />
      ) : null}
      {making ? (
        <NewInstrumentDialog
          onClose={() => setMaking(false)}
          onMade={(i) => {
            setAll((list) => [...list, i]);
            setMaking(false);
          }}
        />
      ) : null}
    </SidePage>
  );
}

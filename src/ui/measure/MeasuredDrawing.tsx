"use client";

import { bodyPoints, hull, type ResolvedFrame, SPANS, type Structure } from "@/core/frame";
import { type FrameRound, quantityOf } from "@/core/job";
import type { Places } from "@/core/square";
import { FrameDrawing, type LineMark, type SpanMark } from "../drawing";
import { useJob } from "../job/JobProvider";
import { valueText } from "./ReadingPad";

/** Marks on the drawing: what was read on each side and diagonal, the next one strong, a doubtful one asked after. */
function spanMarks(round: FrameRound | null, now: string | null, show: (what: string) => string | null): SpanMark[] {
  return SPANS.flatMap((span): SpanMark[] => {
    const text = show(span);
    if (text === null && now !== span) return [];
    const suspect = round?.square?.fit.diagnosis.candidates.some((c) => c.id === span) ?? false;
    return [
      { span, text: text === null ? `${span}?` : suspect ? `${text} ?` : text, tone: "brass", active: now === span },
    ];
  });
}

/** A frame that is measured standing, as it is seen then. */
function standing(structure: Structure, box: ResolvedFrame, { axes }: Places): ResolvedFrame {
  const { right, up } = axes;
  const [x0, y0] = [structure.low[right], structure.low[up]];
  const flat = (p: readonly [number, number, number]) => ({ x: p[right] - x0, y: p[up] - y0 });
  const [lengthMm, widthMm] = [structure.high[right] - x0, structure.high[up] - y0];
  return {
    ...box,
    lengthMm,
    widthMm,
    corners: { A: { x: 0, y: 0 }, B: { x: lengthMm, y: 0 }, C: { x: lengthMm, y: widthMm }, D: { x: 0, y: widthMm } },
    members: structure.members.map((m) => ({
      name: m.id,
      kind: "cross",
      axis: [flat(m.ends.from.at), flat(m.ends.to.at)],
      outline: hull(bodyPoints(m).map(flat)),
      longPointMm: m.longMm,
      shortPointMm: m.shortMm,
      centreMm: m.centreMm,
    })),
  };
}

/** The frame with what was read on it, and where the next reading is. */
export function MeasuredDrawing({
  round,
  now,
  label,
  slide = null,
  maxHeight = 420,
}: {
  round: FrameRound | null;
  now: string | null;
  label: string;
  slide?: Parameters<typeof FrameDrawing>[0]["slide"];
  maxHeight?: number;
}) {
  const { job, evaluation } = useJob();
  const { units } = job.plan;
  const { frame, footprint, places, structure } = evaluation;
  if (!footprint || !places || !structure) return null;
  const shown = frame ?? (places.seen === "standing" ? standing(structure, footprint, places) : footprint);
  const show = (what: string): string | null => {
    const s = round?.readings.get(what) ?? round?.slants.get(what);
    return s ? valueText(s.value, units) : null;
  };
  const names = new Set<string>();
  const lines: LineMark[] = [];
  const cornerText: Record<string, string> = {};
  const read = [...(round?.readings.keys() ?? []), ...(round?.slants.keys() ?? [])];
  for (const what of new Set([...read, ...(now ? [now] : [])])) {
    const q = quantityOf(what);
    const text = show(what) ?? "?";
    const put = (from: string, to: string, words: string) => {
      const [a, b] = [places.nodes[from], places.nodes[to]];
      if (!a || !b) return;
      names.add(from).add(to);
      lines.push({ id: `${what}/${from}${to}`, from: a, to: b, text: words, tone: "brass", active: what === now });
    };
    if (q.kind === "distance") put(q.from, q.to, text);
    else if (q.kind === "angle") {
      put(q.at, q.from, "");
      put(q.at, q.to, text);
    } else if (q.kind === "offset") {
      put(q.from, q.to, "");
      names.add(q.of);
    } else if (q.kind === "height") cornerText[q.name] = text;
  }
  return (
    <FrameDrawing
      frame={shown}
      units={units}
      bare
      unnamed={frame === null}
      seen={places.seen === "standing" ? "as it stands" : "seen from above"}
      label={label}
      spans={frame ? spanMarks(round, now, show) : []}
      lines={lines}
      places={Object.entries(places.nodes)
        .filter(([n]) => (frame ? names.has(n) && !/^[A-D]$/.test(n) : true))
        .map(([name, at]) => ({ name, at }))}
      cornerText={frame ? cornerText : {}}
      slide={slide}
      maxHeight={maxHeight}
    />
  );
}

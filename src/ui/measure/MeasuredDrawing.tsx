"use client";

import { useMemo } from "react";
import { sceneOf } from "@/core/drawing";
import { SPANS } from "@/core/geometry";
import { type FrameRound, quantityKey, readingText, spanOf } from "@/core/job";
import type { Vec2 } from "@/core/numeric";
import { tapedTo } from "@/core/square";
import { FrameDrawing, type LineMark, type SpanMark } from "../drawing";
import { useJob } from "../job/JobProvider";
import type { Quantity } from "./quantities";

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

/** The frame with what was read on it, and where the next reading is. */
export function MeasuredDrawing({
  round,
  now,
  label,
  slide = null,
  maxHeight = 420,
}: {
  round: FrameRound | null;
  now: Quantity | null;
  label: string;
  slide?: Parameters<typeof FrameDrawing>[0]["slide"];
  maxHeight?: number;
}) {
  const { job, evaluation, units } = useJob("job", "evaluation", "units");
  const { places, structure } = evaluation;
  const scene = useMemo(() => structure && places && sceneOf(structure, places), [structure, places]);
  if (!places || !scene) return null;
  const { corners } = scene;
  const show = (what: string): string | null => {
    const s = round?.readings.get(what) ?? round?.slants.get(what);
    return s ? readingText(s, job.instruments, units).text : null;
  };
  const all = tapedTo(places);
  const names = new Set<string>();
  const lines: LineMark[] = [];
  const cornerText: Record<string, string> = {};
  const middles: { name: string; at: Vec2 }[] = [];
  const read = [...(round?.readings.values() ?? []), ...(round?.slants.values() ?? [])].map((s) => s.what);
  const wanted = new Map([...read, ...(now ? [now.what] : [])].map((q) => [quantityKey(q), q]));
  for (const [what, q] of wanted) {
    const text = show(what) ?? "?";
    const put = (from: string, to: string, words: string) => {
      const [a, b] = [all[from], all[to]];
      if (!a || !b) return;
      names.add(from).add(to);
      lines.push({ id: `${what}/${from}${to}`, from: a, to: b, text: words, tone: "brass", active: what === now?.key });
    };
    if (q.kind === "distance" && spanOf(q) === null) put(q.from, q.to, text);
    else if (q.kind === "angle") {
      put(q.at, q.from, "");
      put(q.at, q.to, text);
    } else if (q.kind === "offset") {
      put(q.from, q.to, "");
      names.add(q.of);
    } else if (q.kind === "height") {
      cornerText[q.at] = text;
      const middle = places.middles[q.at];
      if (middle) middles.push({ name: q.at, at: middle.at });
    }
  }
  return (
    <FrameDrawing
      scene={scene}
      units={units}
      bare
      label={label}
      spans={corners ? spanMarks(round, now?.key ?? null, show) : []}
      lines={lines}
      places={[
        ...Object.entries(all)
          .filter(([n]) => (corners ? names.has(n) && !(n in corners) : true))
          .map(([name, at]) => ({ name, at })),
        ...middles,
      ]}
      cornerText={corners ? cornerText : {}}
      slide={slide}
      maxHeight={maxHeight}
    />
  );
}

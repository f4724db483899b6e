"use client";

import { limitName } from "@/core/check";
import { chanceWords, forecastWords, likelyFailure } from "@/core/job";
import { Section } from "../parts/Sheet";
import { useJob } from "./JobProvider";
import { LearnedSince } from "./LearnedSince";

/** Said at the top of a stage when a limit is likelier to be failed than passed; nothing otherwise. */
export function LikelyFailure() {
  const { evaluation, units } = useJob("evaluation", "units");
  const bad = likelyFailure(evaluation.forecasts);
  if (!bad || evaluation.cold) return null;
  return (
    <div className="border-l-4 border-close py-0.5 pl-4" role="status" data-testid="likely-failure">
      <p className="text-lg font-semibold text-close">
        As planned, {limitName(bad.limit)} is likely to fail: it passes {chanceWords(bad.chance ?? 0)}.
      </p>
      <p className="mt-1 max-w-prose first-letter:uppercase">
        {forecastWords(bad, units)}.{" "}
        {evaluation.atGate?.do === "act"
          ? evaluation.atGate.say
          : "Change heat, order or set-up before the first bead."}
      </p>
    </div>
  );
}

/** Chance to pass each limit, from how the frame is to be set up or was read last. */
export function Forecasts() {
  const { evaluation, units } = useJob("evaluation", "units");
  const { forecasts } = evaluation;
  if (forecasts.length === 0) return null;
  return (
    <Section title="Will it pass?" aside={<span className="text-sm text-soft">chance, each limit by itself</span>}>
      <ul className="grid gap-2" data-testid="forecasts">
        {forecasts.map((f) => (
          <li key={f.limit.id}>
            <p className="flex flex-wrap items-baseline justify-between gap-x-4">
              <span>{f.limit.label}</span>
              <span className={`fig ${f.chance !== null && f.chance < 0.5 ? "font-bold text-close" : "text-plum"}`}>
                {f.chance === null ? "–" : chanceWords(f.chance)}
              </span>
            </p>
            <p className="text-sm text-soft first-letter:uppercase">{forecastWords(f, units)}.</p>
          </li>
        ))}
      </ul>
      <div className="mt-3">
        <LearnedSince />
      </div>
    </Section>
  );
}

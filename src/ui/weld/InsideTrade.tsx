"use client";

import { useEffect, useRef, useState } from "react";
import { hasInsideTrade, insideTradeWords, predictionKey, type InsideTrade as Trade } from "@/core/job";
import type { Predictions } from "@/workers/predictions";
import { useJob } from "../job/JobProvider";
import { Button } from "../parts/Button";

type State = { key: string } & ({ is: "working" } | { is: "failed" } | { is: "none" } | { is: "known"; trade: Trade });

/** Whether the insides of the corners had better come first, worked out for this frame when somebody asks. */
export function InsideTrade() {
  const { job, units } = useJob("job", "units");
  const key = predictionKey(job.plan);
  const [state, setState] = useState<State | null>(null);
  const worker = useRef<Predictions | null>(null);
  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );
  const compare = async (): Promise<void> => {
    setState({ key, is: "working" });
    const failed = () => {
      worker.current?.end();
      worker.current = null;
      setState({ key, is: "failed" });
    };
    try {
      const { Predictions } = await import("@/workers/predictions");
      worker.current ??= new Predictions(failed);
      const trade = await worker.current.insideTrade(job.plan);
      setState(trade ? { key, is: "known", trade } : { key, is: "none" });
    } catch {
      failed();
    }
  };
  // Of another plan, what was worked out is nothing of this one.
  const now = state?.key === key ? state : null;
  if (!hasInsideTrade(job.plan)) return null;
  return (
    <div aria-live="polite">
      {now?.is === "known" ? (
        <ul className="grid max-w-prose gap-1 text-sm text-soft" data-testid="inside-trade">
          {insideTradeWords(now.trade, units).map((words) => (
            <li key={words}>{words}</li>
          ))}
        </ul>
      ) : now?.is === "none" ? (
        <p className="text-sm text-soft">This order has no inside beads at four corners to lay first.</p>
      ) : (
        <Button look="quiet" disabled={now?.is === "working"} onClick={() => void compare()}>
          {now?.is === "working"
            ? "Working both ways through…"
            : now?.is === "failed"
              ? "It could not be worked out: try again"
              : "Would the insides be better first?"}
        </Button>
      )}
    </div>
  );
}

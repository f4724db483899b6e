"use client";

import { Progress } from "radix-ui";
import { useState } from "react";
import { Button } from "../parts/Button";
import { useJob } from "./JobProvider";
import { timeLeft } from "./timeLeft";

/** How the prediction stands while it is not ready: progress with a way to stop it, or why there is none. */
export function PredictionStatus() {
  const { predicted } = useJob("predicted");
  const { state } = predicted;
  switch (state.status) {
    case "ready":
      return null;
    case "none":
      return <p className="text-soft">{state.why}</p>;
    case "working":
      return <Working stop={state.cancel} />;
    default:
      return (
        <div className="flex flex-wrap items-center gap-3">
          <p>
            {state.status === "stopped"
              ? "Stopped: there is no prediction for the plan as it is."
              : "The prediction could not be worked out on this device."}
          </p>
          <Button onClick={state.again}>Work it out</Button>
        </div>
      );
  }
}

/** Progress, and how long it goes on where that is worth telling: a frame of hundreds of joints takes minutes. */
function Working({ stop }: { stop: () => void }) {
  const { share } = useJob("share");
  const now = { atMs: performance.now(), share };
  const [begun, setBegun] = useState(now);
  // Another plan begins anew.
  if (share < begun.share) setBegun(now);
  const percent = Math.round(100 * share);
  const left = timeLeft(begun, now);
  return (
    <div className="flex flex-wrap items-center gap-3" data-testid="working">
      <span>Working through every step…</span>
      <Progress.Root value={percent} aria-label="Prediction" className="h-2 w-40 overflow-hidden rounded bg-line">
        <Progress.Indicator className="h-full bg-plum" style={{ width: `${percent}%` }} />
      </Progress.Root>
      <span className="fig w-12 text-sm text-soft">{percent} %</span>
      {left ? <span className="text-sm text-soft">{left}</span> : null}
      <Button look="quiet" onClick={stop}>
        Stop
      </Button>
    </div>
  );
}

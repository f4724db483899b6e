import { useCallback, useEffect, useMemo, useRef, useState } from "react";
import { jointsOf, type Plan, predictionKey, whyNoPrediction } from "@/core/job";
import type { LikelyValue, Prediction, Replay } from "@/core/shrink";
import type { Predictions } from "@/workers/predictions";
import { keptForecasts } from "./keptForecasts";
import { useCameBack } from "./useCameBack";

/** Frames of more joints take many seconds: what was worked out for them is kept on this device. */
const KEPT_FROM_JOINTS = 40;
/** Waits for a pause in typing before it starts, ms. */
const PAUSE_MS = 120;

/** How the prediction of the plan stands. */
type PredictionState =
  | { status: "ready" }
  /** Likely values come first, their bands with the prediction. */
  | { status: "working"; likely: readonly LikelyValue[]; cancel: () => void }
  | { status: "stopped" | "failed"; again: () => void }
  /** The plan has errors, or its frame cannot be simulated. */
  | { status: "none"; why: string };

export interface Predicted {
  /** Of the plan as it is; null until it is worked out: what was predicted of another plan is nothing of this one. */
  prediction: Prediction | null;
  /** Steps of the plan as it is; null until it is worked out here. */
  replay: Replay | null;
  state: PredictionState;
  /** Says that this page needs the replay. */
  wantReplay: () => void;
}

const nothing = (): void => undefined;

/**
 * How it stands before the page is live, as it will once it is: what is still to be worked out is not said to be ready.
 * @param first what the server had at hand.
 */
export function firstPredicted(plan: Plan, first: Prediction | null): Predicted {
  const why = whyNoPrediction(plan);
  return {
    prediction: why === null ? first : null,
    replay: null,
    state:
      why !== null
        ? { status: "none", why }
        : first
          ? { status: "ready" }
          : { status: "working", likely: [], cancel: nothing },
    wantReplay: nothing,
  };
}

interface Result {
  key: string;
  prediction: Prediction;
  replay: Replay | null;
}

/**
 * Keeps the prediction of a plan up to date, worked out in a worker.
 * @param plan the plan. @param first what the server had at hand.
 * @returns the share done apart from the rest: it changes many times while one is worked out, and few ask for it.
 */
export function usePrediction(plan: Plan, first: Prediction | null): { predicted: Predicted; share: number } {
  const key = predictionKey(plan);
  // biome-ignore lint/correctness/useExhaustiveDependencies: the key is all that it depends on
  const why = useMemo(() => whyNoPrediction(plan), [key]);
  const possible = why === null;
  const [result, setResult] = useState<Result | null>(() => first && { key, prediction: first, replay: null });
  const [share, setShare] = useState(0);
  const [likely, setLikely] = useState<{ key: string; values: readonly LikelyValue[] } | null>(null);
  const [halted, setHalted] = useState<{ key: string; status: "stopped" | "failed" } | null>(null);
  const [replayWanted, setReplayWanted] = useState(false);
  const worker = useRef<Predictions | null>(null);
  // A worker that cannot start outlives the question that called for it: whoever asks now is told.
  const whenFailed = useRef<() => void>(() => undefined);
  const [attempt, setAttempt] = useState(0);
  const isFailed = useRef(false);
  // What failed for want of a connection is tried again when it is back: as another attempt, for where it came back before the failure
  // was shown, there is no failure to take back.
  const cameBack = useCameBack(() => {
    if (!isFailed.current) return;
    setHalted((h) => (h?.status === "failed" ? null : h));
    setAttempt((a) => a + 1);
  });
  const planRef = useRef(plan);
  useEffect(() => {
    planRef.current = plan;
  });

  useEffect(
    () => () => {
      worker.current?.end();
      worker.current = null;
    },
    [],
  );

  const current = result?.key === key;
  const halt = halted?.key === key ? halted.status : null;
  const needed = possible && halt === null && !(current && (result.replay || !replayWanted));
  // biome-ignore lint/correctness/useExhaustiveDependencies: another attempt is the same once more
  useEffect(() => {
    if (!needed) return;
    let gone = false;
    isFailed.current = false;
    const cameBackBefore = cameBack.current;
    const failed = () => {
      if (gone) return;
      // A worker that could not start is of no more use.
      worker.current?.end();
      worker.current = null;
      // The connection came back before its want was noticed: no other sign of that will come.
      if (cameBack.current !== cameBackBefore) setAttempt((a) => a + 1);
      else {
        isFailed.current = true;
        setHalted({ key, status: "failed" });
      }
    };
    whenFailed.current = failed;
    const begun = (Kind: new (failed: () => void) => Predictions): Predictions => {
      const mine = new Kind(() => {
        mine.end();
        if (worker.current === mine) worker.current = null;
        whenFailed.current();
      });
      return mine;
    };
    const work = async (): Promise<void> => {
      setShare(0);
      // What took long on another page, or before this device was restarted, is not worked out again.
      const isLarge = jointsOf(planRef.current) > KEPT_FROM_JOINTS;
      const known = isLarge ? await keptForecasts.of(key) : null;
      if (gone) return;
      if (known) {
        setResult({ key, ...known });
        return;
      }
      // Most pages come with what the server had at hand: what speaks to the worker comes when it is needed.
      const { Predictions } = await import("@/workers/predictions");
      if (gone) return;
      worker.current ??= begun(Predictions);
      const found = await worker.current.predict(
        planRef.current,
        (s) => !gone && setShare(s),
        (values) => !gone && setLikely({ key, values }),
      );
      if (!found) return;
      if (isLarge) void keptForecasts.keep(key, found);
      if (!gone) setResult({ key, ...found });
    };
    const timer = window.setTimeout(() => void work().catch(failed), PAUSE_MS);
    return () => {
      gone = true;
      window.clearTimeout(timer);
      worker.current?.cancel();
    };
  }, [needed, key, attempt]);

  const wantReplay = useCallback(() => setReplayWanted(true), []);
  const ready = current && (result.replay !== null || !replayWanted);
  // The same object as long as nothing in it changed: who looks at it is not woken for nothing.
  const predicted = useMemo(() => {
    const state: PredictionState = why
      ? { status: "none", why }
      : halt
        ? { status: halt, again: () => setHalted(null) }
        : ready
          ? { status: "ready" }
          : {
              status: "working",
              likely: likely?.key === key ? likely.values : [],
              cancel: () => setHalted({ key, status: "stopped" }),
            };
    return {
      prediction: possible && current ? result.prediction : null,
      replay: current ? result.replay : null,
      state,
      wantReplay,
    };
  }, [why, halt, ready, likely, key, possible, current, result, wantReplay]);
  return { predicted, share };
}

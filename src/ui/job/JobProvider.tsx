"use client";

import {
  createContext,
  type ReactNode,
  use,
  useDeferredValue,
  useEffect,
  useMemo,
  useState,
  useSyncExternalStore,
} from "react";
import { v4 as uuid } from "uuid";
import { type Evaluation, evaluate, type Job } from "@/core/job";
import type { Prediction } from "@/core/shrink";
import { origin } from "../parts/device";
import { type JobSnapshot, JobStore } from "./jobStore";
import { transport } from "./transport";
import { type Predicted, usePrediction } from "./usePrediction";

const POLL_MS = 8000;

interface JobContext extends JobSnapshot {
  store: JobStore;
  evaluation: Evaluation;
  predicted: Predicted;
}

const Context = createContext<JobContext | null>(null);

/** The job that the page shows. @throws Error outside a job. */
export function useJob(): JobContext {
  const job = use(Context);
  if (!job) throw new Error("useJob outside a job");
  return job;
}

const noStorage: Pick<Storage, "getItem" | "setItem" | "removeItem" | "key" | "length"> = {
  length: 0,
  key: () => null,
  getItem: () => null,
  setItem: () => undefined,
  removeItem: () => undefined,
};

const makeStore = (start: { job: Job; seq: number }): JobStore =>
  new JobStore(start, origin, {
    transport,
    storage: typeof window === "undefined" ? noStorage : window.localStorage,
    now: () => new Date().toISOString(),
    newId: uuid,
    later: (work, ms) => window.setTimeout(work, ms),
    cancel: (handle) => window.clearTimeout(handle as number),
  });

/** Holds one job for all its stages, saves it, and hears what others do. */
export function JobProvider({
  start,
  children,
}: {
  start: { job: Job; seq: number; prediction: Prediction | null };
  children: ReactNode;
}) {
  const [store] = useState(() => makeStore(start));
  const snapshot = useSyncExternalStore(store.subscribe, store.getSnapshot, store.getSnapshot);

  useEffect(() => {
    store.resume();
    const poll = () => {
      if (document.visibilityState === "visible") void store.poll();
    };
    const online = () => store.retry();
    const timer = window.setInterval(poll, POLL_MS);
    window.addEventListener("focus", poll);
    window.addEventListener("online", online);
    poll();
    return () => {
      window.clearInterval(timer);
      window.removeEventListener("focus", poll);
      window.removeEventListener("online", online);
      store.end();
    };
  }, [store]);

  const { job } = snapshot;
  // A key or a tick is answered at once; what follows from it is worked out right behind, and a next key may interrupt it.
  const settled = useDeferredValue(job);
  const predicted = usePrediction(settled.plan, start.prediction);
  const { prediction } = predicted;
  const evaluation = useMemo(() => evaluate(settled, prediction), [settled, prediction]);
  const value = { ...snapshot, store, evaluation, predicted };
  return <Context value={value}>{children}</Context>;
}

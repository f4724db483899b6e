"use client";

import {
  createContext,
  type ReactNode,
  use,
  useDeferredValue,
  useEffect,
  useLayoutEffect,
  useMemo,
  useState,
} from "react";
import { v4 as uuid } from "uuid";
import { createStore, type StoreApi, useStore } from "zustand";
import { useShallow } from "zustand/react/shallow";
import { type Evaluation, evaluate, type Job, type OwnPart, partJob, piecesOf } from "@/core/job";
import type { ShopLearned } from "@/core/learn";
import type { Prediction } from "@/core/shrink";
import type { UnitPreference } from "@/core/units";
import { SYNC_TAG } from "../offline/names";
import { origin } from "../parts/device";
import { deviceHere } from "./store/device";
import { type JobSnapshot, JobStore } from "./store/jobStore";
import { browserLocks } from "./store/keeping";
import { transport } from "./store/transport";
import { firstPredicted, type Predicted, usePrediction } from "./usePrediction";

/** Everything that a screen may ask of its job. */
interface JobState extends JobSnapshot {
  store: JobStore;
  units: UnitPreference;
  evaluation: Evaluation;
  predicted: Predicted;
  /** Share of the prediction that is done, while one is worked out. */
  share: number;
  /** What the shop has learned by now, whatever the plan was made with. */
  learned: ShopLearned | null;
  /** When it taught the shop, and why that does not count; null where it has not, or nobody knows. */
  taught: Taught | null;
  /** The sub-assembly that is shown as a job of its own, in what it is part of; null where the job itself is shown. */
  part: (OwnPart & { whole: Evaluation }) | null;
}

const Context = createContext<StoreApi<JobState> | null>(null);

/**
 * What a screen asks of the job that the page shows. It is drawn anew when one of these changes, and only then.
 * @throws Error outside a job.
 */
export function useJob<K extends keyof JobState>(...keys: K[]): Pick<JobState, K> {
  const state = use(Context);
  if (!state) throw new Error("useJob outside a job");
  return useStore(
    state,
    useShallow((s) => Object.fromEntries(keys.map((k) => [k, s[k]])) as Pick<JobState, K>),
  );
}

const makeStore = (start: { job: Job; seq: number }): JobStore =>
  new JobStore(start, origin, {
    transport,
    device: deviceHere(),
    locks: browserLocks,
    now: () => new Date().toISOString(),
    newId: uuid,
    later: (work, ms) => window.setTimeout(work, ms),
    cancel: (handle) => window.clearTimeout(handle as number),
  });

/** Asks the browser to send what waits once a network is there, also after this page was closed; where it can. */
function askForSync(): void {
  type Syncing = ServiceWorkerRegistration & { sync?: { register: (tag: string) => Promise<void> } };
  if (!("serviceWorker" in navigator) || !navigator.serviceWorker.controller) return;
  void navigator.serviceWorker.ready.then((r) => (r as Syncing).sync?.register(SYNC_TAG)).catch(() => undefined);
}

/** That a job taught its shop. */
interface Taught {
  at: string;
  leftOut: string | null;
}

/** What a page of a job starts from. */
export interface Start {
  job: Job;
  seq: number;
  prediction: Prediction | null;
  /** What the shop has learned by now; not known without a network. */
  learned?: ShopLearned;
  taught?: Taught | null;
}

function firstState(start: Start): JobState {
  const store = makeStore(start);
  const snapshot = store.getSnapshot();
  return {
    ...snapshot,
    store,
    units: start.job.plan.units,
    evaluation: evaluate(start.job, start.prediction),
    predicted: firstPredicted(start.job.plan, start.prediction),
    share: 0,
    learned: start.learned ?? null,
    taught: start.taught ?? null,
    part: null,
  };
}

/** A sub-assembly as a job of its own, by what was known of the whole. */
interface Part {
  by: Evaluation;
  own: Pick<JobState, "job" | "evaluation">;
}

/** Sub-assemblies of a job as jobs of their own: worked out once for each job and what is known of it. */
const PARTS = new WeakMap<Job, Map<string, Part>>();

/** The same with a sub-assembly for its job, set up as its pieces are cut with the whole; as it was where there is no such part. */
function asPart(state: JobState, id: string): JobState {
  const known = PARTS.get(state.job) ?? new Map<string, Part>();
  PARTS.set(state.job, known);
  let part = known.get(id);
  if (part?.by !== state.evaluation) {
    const job = partJob(state.job, id);
    if (!job) return state;
    part = { by: state.evaluation, own: { job, evaluation: evaluate(job, null, piecesOf(state.evaluation)) } };
    known.set(id, part);
  }
  return { ...state, ...part.own, part: { id, name: part.own.job.plan.name, whole: state.evaluation } };
}

/** Shows a sub-assembly to what is inside as if it were the job; the job itself where none is named. */
export function PartOf({ id, children }: { id: string | null; children: ReactNode }) {
  const whole = use(Context);
  if (!whole) throw new Error("PartOf outside a job");
  const part = useMemo(
    () => createStore<JobState>(() => (id === null ? whole.getState() : asPart(whole.getState(), id))),
    [whole, id],
  );
  useLayoutEffect(() => {
    if (id === null) return;
    const hear = () => part.setState(asPart(whole.getState(), id));
    hear();
    return whole.subscribe(hear);
  }, [whole, part, id]);
  return <Context value={id === null ? whole : part}>{children}</Context>;
}

/** Works out what follows from the job, right behind every change of it, and tells those who ask for it. */
function WorkOut({ state, first }: { state: StoreApi<JobState>; first: Start }) {
  const job = useStore(state, (s) => s.job);
  // A key or a tick is answered at once; what follows from it is worked out right behind, and a next key may interrupt it.
  const settled = useDeferredValue(job);
  const { predicted, share } = usePrediction(settled.plan, first.prediction);
  const { prediction } = predicted;
  const evaluation = useMemo(
    () =>
      settled === first.job && prediction === first.prediction
        ? state.getInitialState().evaluation
        : evaluate(settled, prediction),
    [settled, prediction, first, state],
  );
  useLayoutEffect(() => state.setState({ evaluation, predicted, share }), [state, evaluation, predicted, share]);
  return null;
}

/** Holds one job for all its stages, saves it, and hears what others do. */
export function JobProvider({ start, children }: { start: Start; children: ReactNode }) {
  const [first] = useState(start);
  const [state] = useState(() => createStore<JobState>(() => firstState(start)));
  const { store } = state.getInitialState();

  useEffect(() => {
    const hear = () => {
      const snapshot = store.getSnapshot();
      if (snapshot.save.state === "waiting") askForSync();
      state.setState({ ...snapshot, units: snapshot.job.plan.units });
    };
    const unhear = store.subscribe(hear);
    void store.resume();
    const online = () => store.retry();
    window.addEventListener("online", online);
    window.addEventListener("pagehide", store.leave);
    void store.poll();
    return () => {
      unhear();
      window.removeEventListener("online", online);
      window.removeEventListener("pagehide", store.leave);
      store.end();
    };
  }, [store, state]);

  return (
    <Context value={state}>
      <WorkOut state={state} first={first} />
      {children}
    </Context>
  );
}

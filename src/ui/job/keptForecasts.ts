import type { DBSchema, IDBPDatabase } from "idb";
import type { Prediction, Replay } from "@/core/shrink";

/** What was worked out for a plan. */
export interface KeptForecast {
  prediction: Prediction;
  replay: Replay | null;
}

/** What one is of, apart from it: it is large. */
interface About {
  /** What it depends on. */
  key: string;
  /** The computation that it was made by. */
  model: string;
  atMs: number;
}

interface Tables extends DBSchema {
  about: { key: string; value: About };
  made: { key: string; value: KeptForecast };
}

/** Away from what must not be lost: forecasts can be made again. */
const NAME = "mellow-plumb-forecasts";
/** Forecasts that are kept: one of hundreds of joints takes some hundred megabytes with its steps. */
const MOST = 2;

let opened: Promise<IDBPDatabase<Tables>> | null = null;
const open = (): Promise<IDBPDatabase<Tables>> => {
  opened ??= import("idb").then(({ openDB }) =>
    openDB<Tables>(NAME, 1, {
      upgrade: (fresh) => {
        fresh.createObjectStore("about", { keyPath: "key" });
        fresh.createObjectStore("made");
      },
    }),
  );
  return opened;
};

/**
 * Forecasts that took long, kept on this device over pages and restarts.
 * @param model the computation that this was built with; what another one made is as if it were not there. Null: nothing is kept.
 */
export class KeptForecasts {
  constructor(private readonly model: string | null) {}

  /** What was worked out for a plan by this very computation; null where nothing is kept, or the device keeps nothing. */
  async of(key: string): Promise<KeptForecast | null> {
    if (this.model === null) return null;
    try {
      const db = await open();
      const about = await db.get("about", key);
      return about?.model === this.model ? ((await db.get("made", key)) ?? null) : null;
    } catch {
      return null;
    }
  }

  /** Keeps one; those of another computation and the oldest go. A device that keeps nothing, or is full, goes on without. */
  async keep(key: string, { prediction, replay }: KeptForecast): Promise<void> {
    if (this.model === null) return;
    try {
      const db = await open();
      const others = (await db.getAll("about")).filter((k) => k.key !== key).sort((a, b) => b.atMs - a.atMs);
      const stay = others.filter((k) => k.model === this.model).slice(0, MOST - 1);
      const both = db.transaction(["about", "made"], "readwrite");
      const [about, made] = [both.objectStore("about"), both.objectStore("made")];
      await Promise.all([
        ...others.filter((k) => !stay.includes(k)).flatMap((gone) => [about.delete(gone.key), made.delete(gone.key)]),
        about.put({ key, model: this.model, atMs: Date.now() }),
        made.put({ prediction, replay }, key),
        both.done,
      ]);
    } catch {
      // It is made again when it is asked for.
    }
  }
}

/** Of this build. */
export const keptForecasts = new KeptForecasts(process.env.PLUMB_MODEL ?? null);

import { type Collision, collide, type Plan, planChanges } from "@/core/job";

/** Somebody else saved first. */
export interface Conflict extends Collision {
  version: number;
  plan: Plan;
}

/** Unsaved edits as they are kept on the device. */
export interface KeptDraft {
  baseVersion: number;
  base: Plan;
  plan: Plan;
}

/** The plan as it is edited here: the version that it is based on, what undo goes back to, and who saved first. */
export class PlanDocument {
  conflict: Conflict | null = null;
  private past: Plan[] = [];
  private future: Plan[] = [];

  constructor(
    public plan: Plan,
    public baseVersion: number,
    private base = plan,
  ) {}

  get canUndo(): boolean {
    return this.past.length > 0;
  }

  get canRedo(): boolean {
    return this.future.length > 0;
  }

  /** Whether the server has not got it as it is. */
  isDirty(): boolean {
    return this.plan !== this.base && planChanges(this.base, this.plan).length > 0;
  }

  /** @returns false when nothing changed. */
  edit(change: (plan: Plan) => Plan): boolean {
    const next = change(this.plan);
    if (next === this.plan) return false;
    this.past.push(this.plan);
    this.future = [];
    this.plan = next;
    return true;
  }

  undo(): boolean {
    return this.step(this.past, this.future);
  }

  redo(): boolean {
    return this.step(this.future, this.past);
  }

  private step(from: Plan[], to: Plan[]): boolean {
    const next = from.pop();
    if (!next) return false;
    to.push(this.plan);
    this.plan = next;
    return true;
  }

  /** The server has this plan as this version. */
  saved(plan: Plan, version: number): void {
    this.base = plan;
    this.baseVersion = version;
  }

  /** Takes what another one saved, where nothing of one's own stands against it. */
  hear(plan: Plan, version: number): void {
    if (version > this.baseVersion && !this.isDirty() && !this.conflict) this.start(plan, plan, version);
  }

  /** Somebody saved first: what each changed is laid side by side. */
  collide(current: { version: number; plan: Plan }): void {
    this.conflict = { ...current, ...collide(this.base, this.plan, current.plan) };
  }

  /** Ends a conflict: `theirs` drops own edits, `mine` lays them over what the other one saved. */
  settle(choice: "theirs" | "mine"): boolean {
    const { conflict } = this;
    if (!conflict) return false;
    this.conflict = null;
    this.start(choice === "mine" ? conflict.merged : conflict.plan, conflict.plan, conflict.version);
    return true;
  }

  /** What the server has not got; null when it has everything. */
  draft(): KeptDraft | null {
    const { baseVersion, base, plan } = this;
    return this.isDirty() ? { baseVersion, base, plan } : null;
  }

  /** Takes up edits that an earlier page left. When the plan moved on meanwhile, saving finds that out and asks. */
  takeUp({ baseVersion, base, plan }: KeptDraft): void {
    if (baseVersion === this.baseVersion) this.plan = plan;
    else if (planChanges(base, plan).length > 0) this.start(plan, base, baseVersion);
  }

  private start(plan: Plan, base: Plan, version: number): void {
    this.plan = plan;
    this.base = base;
    this.baseVersion = version;
    this.past = [];
    this.future = [];
  }
}

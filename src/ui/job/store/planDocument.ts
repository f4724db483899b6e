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
  /** What was sent last; the answer may not have come. */
  sent?: Plan;
}

/** The plan as it is edited here: the version that it is based on, what undo goes back to, and who saved first. */
export class PlanDocument {
  conflict: Conflict | null = null;
  private sent: Plan | undefined;
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

  /** Whether it was touched since the server had it; what was changed may have been changed back. */
  get isTouched(): boolean {
    return this.plan !== this.base;
  }

  /** Whether the server has not got it as it is. */
  isDirty(): boolean {
    return this.isTouched && planChanges(this.base, this.plan).length > 0;
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

  /** Nothing of it has to be sent. */
  rest(): void {
    this.base = this.plan;
  }

  /** Takes what another one saved, where nothing of one's own stands against it. */
  hear(plan: Plan, version: number): void {
    if (version > this.baseVersion && !this.isDirty() && !this.conflict) this.start(plan, plan, version);
  }

  /** The plan as it is goes to the server now. */
  sending(): void {
    this.sent = this.plan;
  }

  /**
   * Another one saved first: what each changed is laid side by side. What this person sent last may be what got in,
   * where the page was left before the answer came: then there is nothing to settle.
   * @returns whether there is something to settle.
   */
  collide(current: { version: number; plan: Plan }): boolean {
    if (this.sent && planChanges(current.plan, this.sent).length === 0) {
      this.saved(this.sent, current.version);
      return false;
    }
    this.conflict = { ...current, ...collide(this.base, this.plan, current.plan) };
    return true;
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
    const { baseVersion, base, plan, sent } = this;
    return this.isDirty() ? { baseVersion, base, plan, ...(sent && sent !== base ? { sent } : {}) } : null;
  }

  /** Takes up edits that an earlier page left. When the plan moved on meanwhile, saving finds that out and asks. */
  takeUp({ baseVersion, base, plan, sent }: KeptDraft): void {
    this.sent = sent;
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

import { type Collision, collide, type Plan, planChanges } from "@/core/job";

/** Somebody else saved first. */
export interface Conflict extends Collision {
  version: number;
  plan: Plan;
}

/** Plans on their way that are kept in mind: more are never without an answer at once. */
const MOST_SENT = 8;

/** Unsaved edits as they are kept on the device. */
export interface KeptDraft {
  baseVersion: number;
  base: Plan;
  plan: Plan;
  /** What was sent since; the answers may not have come. One alone: as earlier versions kept it. */
  sent?: Plan | readonly Plan[];
}

/** The plan as it is edited here: the version that it is based on, what undo goes back to, and who saved first. */
export class PlanDocument {
  conflict: Conflict | null = null;
  /** What was sent over this version without an answer yet: any of it may be what the server has. */
  private sent: readonly Plan[] = [];
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
    this.sent = [];
  }

  /** Nothing of it has to be sent. */
  rest(): void {
    this.base = this.plan;
  }

  /** The plan that the server has, as far as is known here. */
  get stored(): { plan: Plan; version: number } {
    return { plan: this.base, version: this.baseVersion };
  }

  /** Takes what another one saved, where nothing of one's own stands against it. @returns whether it did. */
  hear(plan: Plan, version: number): boolean {
    if (version <= this.baseVersion || this.isDirty() || this.conflict) return false;
    this.start(plan, plan, version);
    return true;
  }

  /** The server went back to an older plan: the one here is laid over it. */
  goBack(plan: Plan, version: number): void {
    this.base = plan;
    this.baseVersion = version;
    this.sent = [];
    this.conflict = null;
  }

  /** The plan as it is goes to the server now. */
  sending(): void {
    if (this.sent.at(-1) !== this.plan) this.sent = [...this.sent, this.plan].slice(-MOST_SENT);
  }

  /**
   * Another one saved first: what each changed is laid side by side. What this person sent may be what got in, where a
   * page was left before the answer came: then there is nothing to settle.
   * @returns whether there is something to settle.
   */
  collide(current: { version: number; plan: Plan }): boolean {
    const own = this.sent.findLast((sent) => planChanges(current.plan, sent).length === 0);
    if (own) {
      this.saved(own, current.version);
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
    return this.isDirty() ? { baseVersion, base, plan, ...(sent.length > 0 ? { sent } : {}) } : null;
  }

  /**
   * Takes up edits that an earlier page left; what was typed here meanwhile is laid over them. When the plan moved on,
   * saving finds that out and asks.
   */
  takeUp({ baseVersion, base, plan, sent }: KeptDraft): void {
    const typed = this.isTouched ? collide(this.base, this.plan, plan).merged : plan;
    if (baseVersion === this.baseVersion) this.plan = typed;
    else if (planChanges(base, typed).length > 0) this.start(typed, base, baseVersion);
    this.sent = [...(sent === undefined ? [] : [sent].flat()), ...this.sent].slice(-MOST_SENT);
  }

  private start(plan: Plan, base: Plan, version: number): void {
    this.plan = plan;
    this.base = base;
    this.baseVersion = version;
    this.sent = [];
    this.past = [];
    this.future = [];
  }
}

import type { StructureFace } from "../frame";
import type { Gate } from "./gates";
import type { Reason } from "./reason";
import { type LiesOn, type Step, stepKey, type Up } from "./step";
import type { StepId } from "./stepSchema";
import type { JointWork } from "./workpiece";

/** Puts steps one after the other: turns the frame when a face wants it, and gives no bead or tack twice. */
export class OrderBuilder {
  readonly steps: Step[] = [];
  private readonly done = new Set<string>();
  private flips = 0;

  /** @param part of the order. @param up how the frame lies to begin with. @param on what it lies on. */
  constructor(
    private readonly part: Step["part"],
    public up: Up,
    private readonly on: LiesOn,
  ) {}

  private put(id: StepId, why: Reason, more: Partial<Step> = {}): void {
    const step: Step = {
      id,
      key: stepKey(id),
      part: this.part,
      joint: null,
      line: null,
      up: this.up,
      gate: null,
      waitsFor: null,
      closes: false,
      why,
      on: this.on,
      ...more,
    };
    if (this.done.has(step.key)) return;
    this.done.add(step.key);
    this.steps.push(step);
  }

  /** Turns the frame, unless it lies so already. */
  turn(up: Up, why: Reason): void {
    if (this.up === up) return;
    this.up = up;
    this.flips += 1;
    this.put({ do: "flip", part: this.part, nth: this.flips }, why);
  }

  weld(kind: "tack" | "bead", { joint }: JointWork, face: StructureFace | null, why: Reason): void {
    if (face) this.put({ do: kind, joint: joint.id, line: face.line }, why, { joint: joint.id, line: face.line });
  }

  measure(gate: Gate, nth: number, why: Reason, closes = false): void {
    this.put({ do: "measure", gate, nth }, why, { gate, closes });
  }

  /** Waits, but not to be touched where no bead was laid by then: tacks alone are cool soon. */
  wait(until: "touch" | "cold", why: Reason): void {
    if (until === "touch" && !this.steps.some((s) => s.id.do === "bead")) return;
    this.put({ do: "wait", until }, why, { waitsFor: until });
  }

  hold(why: Reason): void {
    this.put({ do: "hold" }, why);
  }

  release(why: Reason): void {
    this.put({ do: "release" }, why);
  }
}

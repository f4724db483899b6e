import { type FaceLine, TURNS, type Turned, type TurnName, turnFrame } from "../frame";
import { holdOf, type OrderChoice, type StepId } from "../plan";
import { seamId } from "../weld";
import type { Plan } from "./planSchema";

type Lines = Turned["lines"];
type Found = NonNullable<Plan["found"]>[number];
type Weld = Plan["weld"];

const lineOf = (lines: Lines, joint: string, line: FaceLine): FaceLine => lines.get(joint)?.get(line) ?? line;
const turnedPlace = <P extends { joint: string; line: FaceLine }>(lines: Lines, place: P): P => ({
  ...place,
  line: lineOf(lines, place.joint, place.line),
});

const turnedStep = (lines: Lines, step: StepId): StepId =>
  step.do === "tack" || step.do === "bead" ? turnedPlace(lines, step) : step;

const turnedOrder = (lines: Lines, order: OrderChoice): OrderChoice =>
  order.by === "schools" ? order : { ...order, steps: order.steps.map((s) => turnedStep(lines, s)) };

const turnedFound = (lines: Lines, found: Found): Found => ({
  ...found,
  ...(found.line ? { line: lineOf(lines, found.id, found.line) } : {}),
  ...(found.faces ? { faces: found.faces.map((f) => ({ ...f, line: lineOf(lines, found.id, f.line) })) } : {}),
});

function turnedSeams(lines: Lines, weld: Weld): Weld {
  if (!weld.seams) return weld;
  const ids = new Map(
    [...lines].flatMap(([joint, faces]) =>
      [...faces].map(([was, is]) => [seamId({ joint, line: was }), seamId({ joint, line: is })] as const),
    ),
  );
  return { ...weld, seams: weld.seams.map((s) => ({ ...s, id: ids.get(s.id) ?? s.id })) };
}

/** What was on top is underneath when a frame is upside down; tipped, it is said anew of how the frame lies then. */
const turnedHole = (hole: Plan["drill"][number], turn: TurnName): Plan["drill"][number] =>
  turn === "upside down" && (hole.face === "top" || hole.face === "underside")
    ? { ...hole, face: hole.face === "top" ? "underside" : "top" }
    : hole;

/**
 * A plan of the same frame turned by quarters: every weld, gap and hold stays on the face that it was on. A frame that is entered by
 * its sizes lies as it lies: it is given back as it is.
 */
export function turnedPlan(plan: Plan, turn: TurnName): Plan {
  if (plan.frame.by !== "members") return plan;
  const { frame, lines } = turnFrame(plan.frame.drawn, TURNS[turn], plan.units);
  return {
    ...plan,
    frame: { ...plan.frame, drawn: frame },
    weld: turnedSeams(lines, plan.weld),
    drill: plan.drill.map((hole) => turnedHole(hole, turn)),
    ...(plan.order ? { order: turnedOrder(lines, plan.order) } : {}),
    ...(plan.found ? { found: plan.found.map((f) => turnedFound(lines, f)) } : {}),
    ...(plan.holds
      ? {
          holds: plan.holds.map(({ weld, after, until }) =>
            holdOf(turnedPlace(lines, weld), turnedPlace(lines, after), until),
          ),
        }
      : {}),
  };
}

import type { Reason } from "./reason";
import { type SchoolId, TACK_SCHOOLS } from "./schoolIds";
import type { Order } from "./schools";
import type { Step } from "./step";

/** A school as it is told over one order: its name, what it does there, and what speaks for it there. */
export interface SchoolWords {
  name: string;
  says: string;
  why: string;
}

export const SCHOOL_NAMES: Record<SchoolId, string> = {
  "hinge first": "Hinge first",
  "outside first": "Outside first",
  "two halves": "Two halves",
  "all held": "All held",
  "across and around": "Across and around",
  "strength first": "Strength first",
  "corners then field": "Corners then field",
  "joint by joint": "Joint by joint",
  skip: "Skip",
};

const MADE: Record<Exclude<Order["by"], "schools">, string> = { own: "Own order", computed: "Computed order" };

/** Which order it is, in a line. */
export function orderWords({
  by,
  tack,
  weld,
  together,
  cutAndSet,
  bottomUp,
}: Pick<Order, "by" | "tack" | "weld"> & {
  together?: true | undefined;
  cutAndSet?: true | undefined;
  bottomUp?: true | undefined;
}): string {
  const schools = `${SCHOOL_NAMES[tack].toLowerCase()}, then ${SCHOOL_NAMES[weld].toLowerCase()}${together ? ", sub-assemblies together" : ""}${cutAndSet ? ", cut and set when tacked" : ""}${bottomUp ? ", laid down bottom face up" : ""}`;
  return by === "schools"
    ? `${schools.charAt(0).toUpperCase()}${schools.slice(1)}`
    : `${MADE[by]}, begun from ${schools}`;
}

/** Words that hold where a step stands in the order for that reason, unless another does for a second one. */
type Clause = readonly [Reason["kind"], string, Reason["kind"]?];

const SAYS: Record<SchoolId, readonly Clause[]> = {
  "hinge first": [
    ["joint still turns", "one tack at each joint"],
    ["one before the next", "one tack at each joint"],
    ["close while it turns", "measure and close the error"],
    ["stiff already", "measure"],
    ["locks", "lock on the opposite side"],
    ["corners are locked", "then what is put between"],
    ["far end is free", "then what hangs free"],
  ],
  "across and around": [
    ["outside first", "outside seams first"],
    ["across from", "in pairs across from each other"],
    ["face all round", "one face all round"],
    ["second takes back", "then the other"],
    ["inside last", "the insides last"],
    ["jumping about", "what is put between in turn, not along"],
  ],
  "outside first": [
    ["outside holds", "the middle of each outside"],
    ["one before the next", "the middle of each outside"],
    ["close while it turns", "measure and close the error"],
    ["stiff already", "measure"],
    ["top and bottom soon", "top and bottom in quick succession"],
    ["inside tacked last", "the insides last"],
    ["corners are locked", "then what is put between"],
    ["far end is free", "then what hangs free"],
  ],
  "two halves": [
    ["half by itself", "two L shapes, each on one tack"],
    ["halves before joining", "set to its angle"],
    ["locks", "tacked round"],
    ["joins the halves", "then joined at the other corners"],
    ["corners are locked", "then what is put between"],
    ["far end is free", "then what hangs free"],
  ],
  "all held": [
    ["all faces at once", "everything clamped, each joint tacked on every face that can be reached"],
    ["every side holds", "then from below"],
  ],
  "strength first": [
    ["carries", "the fillets that carry first"],
    ["face all round", "one face all round"],
    ["second takes back", "then the other"],
    ["outside last", "the flat outside seams last"],
  ],
  "corners then field": [
    ["outside first", "every corner whole, outside, both flat faces, inside"],
    ["field jumps about", "then what lies between, jumping about"],
  ],
  "joint by joint": [
    ["as they come", "along the layout, every face of a joint before the next"],
    ["below in one go", "after the turn the faces below"],
  ],
  skip: [["short lengths", "across and around, every seam in short lengths over several rounds"]],
};

const STIFF = "This frame is stiff on one tack at each joint: it has nothing to turn by then.";

const WHY: Record<SchoolId, readonly Clause[]> = {
  "hinge first": [
    ["close while it turns", "It leaves a cheap correction open after the first tacks have pulled."],
    ["stiff already", STIFF, "close while it turns"],
  ],
  "across and around": [
    ["inside last", "The inside bead comes last, when the other faces hold."],
    ["second takes back", "One face goes all round before the turn, and the other takes back part of what it bent."],
  ],
  "outside first": [
    ["close while it turns", "It, too, leaves a cheap correction open after the first tacks."],
    ["stiff already", STIFF, "close while it turns"],
  ],
  "two halves": [
    [
      "halves before joining",
      "Each half can be put right before the other hangs on it; three rests carry an L without rocking.",
    ],
  ],
  "all held": [
    ["what it took", "Good where clamps and stops hold every joint to size; nothing is corrected on the way."],
  ],
  "strength first": [
    [
      "carries",
      "For frames that carry while they are still being welded; the seams that show come when everything holds.",
    ],
  ],
  "corners then field": [
    ["corners cool first", "The outline is finished and cool before anything between pulls on it."],
  ],
  "joint by joint": [
    ["as they come", "The least walking and the fewest turns; the heat of a joint stays in one place."],
  ],
  skip: [
    [
      "short lengths",
      "For heat and burn-through. In shape it is forecast as whole beads: short lengths do not make a frame straighter.",
    ],
  ],
};

/**
 * A school in the words that its order bears out: a clause stands only where a step of that order has its reason.
 * @param steps the whole order; the other school's steps do not count.
 */
export function schoolWords(id: SchoolId, steps: readonly Step[]): SchoolWords {
  const part = TACK_SCHOOLS.includes(id as "hinge first") ? "tack" : "weld";
  const reasons = new Set(steps.filter((s) => s.part === part).map((s) => s.why.kind));
  const borne = (clauses: readonly Clause[]) =>
    clauses
      .filter(([kind, , unless]) => reasons.has(kind) && !(unless && reasons.has(unless)))
      .map(([, words]) => words);
  const says = [...new Set(borne(SAYS[id]))].join(", ");
  return {
    name: SCHOOL_NAMES[id],
    says: says ? `${says.charAt(0).toUpperCase()}${says.slice(1)}.` : "",
    why: borne(WHY[id]).join(" "),
  };
}

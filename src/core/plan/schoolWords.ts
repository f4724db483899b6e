import type { Reason } from "./reason";
import type { School } from "./schools";
import type { Step } from "./step";

/** A school as it is told over one order: its name, what it does there, and what speaks for it there. */
export interface SchoolWords {
  name: string;
  says: string;
  why: string;
}

export const SCHOOL_NAMES: Record<School["id"], string> = {
  "hinge first": "Hinge first",
  "across and around": "Across and around",
};

/** Words that hold where a step stands in the order for that reason. */
type Clause = readonly [Reason["kind"], string];

const SAYS: Record<School["id"], readonly Clause[]> = {
  "hinge first": [
    ["joint still turns", "one tack at each joint"],
    ["close while it turns", "measure and close the error"],
    ["locks", "lock on the opposite side"],
    ["corners are locked", "then what is put between"],
  ],
  "across and around": [
    ["outside first", "outside seams first"],
    ["across from", "always across from the last"],
    ["face all round", "one face all round"],
    ["second takes back", "then the other"],
    ["inside last", "the insides last"],
    ["jumping about", "what is put between in turn, not along"],
  ],
};

const WHY: Record<School["id"], readonly Clause[]> = {
  "hinge first": [["close while it turns", "It leaves a cheap correction open after the first tacks have pulled."]],
  "across and around": [
    ["inside last", "The inside bead comes last, when the other faces hold."],
    ["second takes back", "One face goes all round before the turn, and the other takes back part of what it bent."],
  ],
};

/**
 * A school in the words that its order bears out: a clause stands only where a step of that order has its reason.
 * @param steps the whole order; the other school's steps do not count.
 */
export function schoolWords(id: School["id"], steps: readonly Step[]): SchoolWords {
  const part = id === "hinge first" ? "tack" : "weld";
  const reasons = new Set(steps.filter((s) => s.part === part).map((s) => s.why.kind));
  const borne = (clauses: readonly Clause[]) => clauses.filter(([kind]) => reasons.has(kind)).map(([, words]) => words);
  const says = borne(SAYS[id]).join(", ");
  return {
    name: SCHOOL_NAMES[id],
    says: says ? `${says.charAt(0).toUpperCase()}${says.slice(1)}.` : "",
    why: borne(WHY[id]).join(" "),
  };
}

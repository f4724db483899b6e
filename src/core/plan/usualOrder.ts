import type { OrderChoice } from "./orderSchema";
import type { Up } from "./step";

/** How a frame lies to begin with. */
export const liesFirst = (bottomUp: true | undefined): Up => (bottomUp ? "bottom" : "top");

/** What is worked in where nobody chose. */
export const USUAL_ORDER: Extract<OrderChoice, { by: "schools" }> = {
  by: "schools",
  tack: "hinge first",
  weld: "across and around",
};

import { ownChoice, type StepId } from "@/core/plan";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";

/** Puts steps in place of the order as planned. */
export function useOwnSteps(): (steps: readonly StepId[]) => void {
  const { evaluation } = useJob("evaluation");
  const { edit } = usePlanField();
  const { order } = evaluation;
  return (steps) => {
    if (!order) return;
    edit((p) => ({ ...p, order: ownChoice(order, steps) }));
  };
}

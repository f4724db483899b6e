import { useMemo } from "react";
import { type Step, type StepWords, stepsInWords } from "@/core/plan";
import { useJob } from "../job/JobProvider";

/** Words of every step of the order, by its key. */
export function useStepWords(): (step: Step) => StepWords {
  const { evaluation, units } = useJob("evaluation", "units");
  const { structure, steps } = evaluation;
  const words = useMemo(
    () => (structure ? stepsInWords(structure, steps, units) : new Map<string, StepWords>()),
    [structure, steps, units],
  );
  return (step) => words.get(step.key) ?? { say: step.key, why: "", caution: null };
}

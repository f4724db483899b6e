"use client";

import dynamic from "next/dynamic";
import type { HeldWeld, Step } from "@/core/plan";
import { seamHow } from "@/core/weld";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Fold } from "../parts/Fold";
import { useWarm } from "../parts/useWarm";

const fields = () => import("./SeamHowFields");
// Comes when it is opened.
const SeamHowFields = dynamic(fields, { ssr: false });
const LATER = [fields];

/** How one weld is laid, and what it waits for: the way it is run, its lengths, its process, another weld. */
export function SeamHow({ step }: { step: Step }) {
  const { evaluation } = useJob("evaluation");
  const { plan } = usePlanField();
  useWarm(LATER);
  const { structure } = evaluation;
  if (!structure || (step.id.do !== "bead" && step.id.do !== "tack")) return null;
  const own: HeldWeld = { do: step.id.do, joint: step.id.joint, line: step.id.line };
  const said = own.do === "bead" && Object.keys(seamHow(plan.weld, own)).length > 0;
  return (
    <Fold title="How it is laid" note={said ? "not as the others" : "as the others"}>
      <SeamHowFields step={step} own={own} structure={structure} />
    </Fold>
  );
}

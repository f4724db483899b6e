"use client";

import dynamic from "next/dynamic";
import { useJob } from "../job/JobProvider";
import { usePlanField } from "../job/usePlanField";
import { Fold } from "../parts/Fold";
import { useWarm } from "../parts/useWarm";

const fields = () => import("./HandsFields");
// Comes when it is opened.
const HandsFields = dynamic(fields, { ssr: false });
const LATER = [fields];

/** Who welds, and which welds wait for others: what every order is held to. */
export function Hands() {
  const { evaluation } = useJob("evaluation");
  const { plan } = usePlanField();
  useWarm(LATER);
  const { structure } = evaluation;
  if (!structure) return null;
  const said = [...Object.keys(plan.hands ?? {}), ...(plan.holds ?? [])].length;
  return (
    <Fold title="Who welds, and what waits" note={said > 0 ? `${said} set` : "one person, nothing waits"}>
      <HandsFields structure={structure} />
    </Fold>
  );
}

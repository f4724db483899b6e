import { FinishStage } from "@/ui/finish/FinishStage";

export default function Page() {
  return <FinishStage />;
}

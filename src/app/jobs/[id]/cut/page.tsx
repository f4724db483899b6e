import { CutStage } from "@/ui/cut/CutStage";

export default function Page() {
  return <CutStage />;
}

import { WeldStage } from "@/ui/weld/WeldStage";

export default function Page() {
  return <WeldStage />;
}

import { FrameStage } from "@/ui/frame/FrameStage";

export default function Page() {
  return <FrameStage />;
}

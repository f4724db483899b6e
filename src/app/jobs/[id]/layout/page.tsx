import { LayoutStage } from "@/ui/layout/LayoutStage";

export default function Page() {
  return <LayoutStage />;
}

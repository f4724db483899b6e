import { BedStage } from "@/ui/bed/BedStage";

export default function Page() {
  return <BedStage />;
}

import { CheckStage } from "@/ui/check/CheckStage";

export default function Page() {
  return <CheckStage />;
}

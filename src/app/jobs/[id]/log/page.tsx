import { LogStage } from "@/ui/log/LogStage";

export default function Page() {
  return <LogStage />;
}

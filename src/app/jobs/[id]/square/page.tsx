import { SquareStage } from "@/ui/square/SquareStage";

export default function Page() {
  return <SquareStage />;
}

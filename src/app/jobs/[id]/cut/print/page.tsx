import { CutPrint } from "@/ui/cut/CutPrint";

export default function Page() {
  return <CutPrint />;
}

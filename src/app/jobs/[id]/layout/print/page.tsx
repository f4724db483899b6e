import { LayoutPrint } from "@/ui/layout/LayoutPrint";

export default function Page() {
  return <LayoutPrint />;
}

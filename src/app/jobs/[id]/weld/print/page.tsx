import { OrderPrint } from "@/ui/weld/OrderPrint";

export default function Page() {
  return <OrderPrint />;
}

import { HandOver } from "@/ui/hand-over/hand-over";

export default function Page() {
  return <HandOver />;
}

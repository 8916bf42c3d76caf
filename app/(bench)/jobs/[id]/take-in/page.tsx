import { TakeInFacts } from "@/ui/take-in/facts";

export default function Page() {
  return <TakeInFacts />;
}

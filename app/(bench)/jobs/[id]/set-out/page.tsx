import { SetOut } from "@/ui/set-out/set-out";

export default function Page() {
  return <SetOut />;
}

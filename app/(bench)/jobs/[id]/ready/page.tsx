import { Checks } from "@/ui/checks/checks";

export default function Page() {
  return <Checks stage="ready" />;
}

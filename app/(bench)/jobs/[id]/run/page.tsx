import { Run } from "@/ui/run/run";

export default function Page() {
  return <Run />;
}

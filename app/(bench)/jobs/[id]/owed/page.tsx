import { Owed } from "@/ui/owed/owed";

export default function Page() {
  return <Owed />;
}

import { squaresOf, standCode } from "@/server/stand/actions";
import { SetOut } from "@/ui/set-out/set-out";

export default function Page() {
  return <SetOut stand={{ code: standCode, squares: squaresOf }} />;
}

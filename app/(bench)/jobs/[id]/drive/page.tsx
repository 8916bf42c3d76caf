import { Drive } from "@/ui/drive/drive";

export default function Page() {
  return <Drive />;
}

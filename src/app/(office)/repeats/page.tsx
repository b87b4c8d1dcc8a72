import { Bring } from "@/server/live";
import { firstPage } from "@/ui/first-page";
import { Repeats } from "./repeats";

export const metadata = { title: "Repeats" };

export default function RepeatsPage() {
  return (
    <Bring back="/repeats" views={[["repeats", firstPage<"repeats">("next")]]}>
      <Repeats />
    </Bring>
  );
}

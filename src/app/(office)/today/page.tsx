import { Bring } from "@/server/live";
import { Today } from "./today";

export const metadata = { title: "Today" };

export default function TodayPage() {
  return (
    <Bring
      back="/today"
      views={[
        ["today", {}],
        ["day-strip", {}],
      ]}
    >
      <Today />
    </Bring>
  );
}

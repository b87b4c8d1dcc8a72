import { Bring } from "@/server/live";
import { Top } from "../../top";
import { FirstSteps } from "./first-steps";

export const metadata = { title: "Set-up" };

export default function FirstStepsPage() {
  return (
    <Bring back="/setup/start" views={[["first-steps", {}]]}>
      <Top title="Set-up" sum="How far you are, and what does not fit together yet" />
      <FirstSteps />
    </Bring>
  );
}

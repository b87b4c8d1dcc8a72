import { firstSteps } from "@/views/first-steps";
import { read } from "@/app/server/read";
import { Top } from "../../top";
import { FirstSteps } from "./first-steps";

export const metadata = { title: "Set-up" };

export default async function FirstStepsPage() {
  const view = await read(firstSteps, {}, "/setup/start");
  return (
    <>
      <Top title="Set-up" sum="How far you are, and what does not fit together yet" />
      <FirstSteps view={view} />
    </>
  );
}

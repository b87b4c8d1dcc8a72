import { questionProblems } from "@/core/catalogue/question-check";
import { skillGap } from "@/core/windows/skills";
import { type CheckedSetup, type Contradiction } from "./checked-setup";

/** What of a service contradicts itself. Whether it can be booked at all is the engine's to say (unbookable.ts). */
export function ofServices(setup: CheckedSetup): Contradiction[] {
  return setup.services
    .filter((s) => s.active)
    .flatMap((service) => {
      const found: Contradiction[] = [];
      const say = (code: Contradiction["code"], sentence: string) =>
        found.push({ code, part: "services", id: service.id, sentence });
      if (service.deposit.kind === "fixed" && service.deposit.value > service.priceMinor)
        say("deposit-above-price", `The deposit of “${service.name}” is larger than its price.`);
      for (const technician of setup.technicians.filter(
        (t) => service.technicians.includes(t.id) || t.services.includes(service.id),
      ))
        if (skillGap(technician.skills, service.skills, setup.today))
          say(
            "named-without-skill",
            `${technician.name} is named for “${service.name}”, but does not have its skills.`,
          );
      for (const at of Object.keys(questionProblems(service.questions))) {
        const index = Number(at.split("/")[1]);
        if (at.endsWith("/shownIf"))
          say(
            "question-never-shown",
            `The question “${service.questions[index]!.words}” of “${service.name}” can never be shown.`,
          );
      }
      return found;
    });
}

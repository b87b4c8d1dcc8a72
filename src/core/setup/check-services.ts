import { questionProblems } from "@/core/catalogue/question-check";
import { durationWords } from "@/core/time/words";
import { whoCouldDo } from "@/core/windows/eligible";
import { skillGap } from "@/core/windows/skills";
import { firstEnd } from "./check-windows";
import { type CheckedService, type CheckedSetup, type Contradiction } from "./checked-setup";

const able = ({ technicians, today }: CheckedSetup, service: CheckedService, on = today) =>
  whoCouldDo(technicians, service, on);

export function ofServices(setup: CheckedSetup): Contradiction[] {
  return setup.services
    .filter((s) => s.active)
    .flatMap((service) => {
      const found: Contradiction[] = [];
      const say = (code: Contradiction["code"], sentence: string) =>
        found.push({ code, part: "services", id: service.id, sentence });
      const who = able(setup, service);
      if (setup.technicians.length > 0) {
        if (who.length < service.crew)
          say(
            "nobody-can",
            service.crew === 1
              ? `Nobody can do “${service.name}”: no technician has all its skills.`
              : `“${service.name}” needs ${service.crew} people, and ${who.length || "nobody"} can do it.`,
          );
        else if (!who.some((t) => t.hours.some((h) => h.closes - h.opens >= service.length)))
          say(
            "work-too-long",
            `“${service.name}” takes ${durationWords(service.length)}, longer than any stretch of work of those who can do it.`,
          );
      }
      if (service.deposit.kind === "fixed" && service.deposit.value > service.priceMinor)
        say("deposit-above-price", `The deposit of “${service.name}” is larger than its price.`);
      if (service.noticeMinutes >= setup.horizonDays * 1440)
        say(
          "notice-beyond-horizon",
          `“${service.name}” asks for ${durationWords(service.noticeMinutes)} of notice, but bookings are taken only ${setup.horizonDays} days ahead.`,
        );
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
      const windows = service.windows ?? setup.windows;
      if (
        service.hours.length &&
        windows.length &&
        !windows.some((w) =>
          service.hours.some(
            (h) => (w.weekdays & (1 << h.weekday)) !== 0 && h.opens <= w.from && firstEnd(w) <= h.closes,
          ),
        )
      )
        say("window-outside-hours", `No window lies within the hours of “${service.name}”.`);
      return found;
    });
}

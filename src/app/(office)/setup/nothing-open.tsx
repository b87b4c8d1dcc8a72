"use client";
import { moneyWords } from "@/core/money/amounts";
import { addDays } from "@/core/time/dates";
import { dateWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import type { SetupData } from "./data";
import type { PartPath } from "./parts";

/** What is said beside a list of which nothing is open: how it stands, and the next useful thing. */
export function NothingOpen({ part, data }: { part: PartPath; data: SetupData }) {
  const { standing, next } = wordsFor(part, data);
  return (
    <Box sx={{ display: "grid", gap: 2, justifyItems: "start", maxWidth: 520 }}>
      {standing.map((sentence) => (
        <Box key={sentence}>{sentence}</Box>
      ))}
      <Box sx={{ color: ink.ash }}>Choose one at the left, or add a new one.</Box>
      {next.map(({ words, href }) => (
        <LinkBox key={href} href={href} sx={{ color: ink.lake }}>
          {words}
        </LinkBox>
      ))}
    </Box>
  );
}

interface Words {
  standing: string[];
  next: { words: string; href: string }[];
}

/** Certificates that end within so many days are worth a look. */
const soonDays = 60;

function wordsFor(part: PartPath, data: SetupData): Words {
  switch (part) {
    case "services": {
      const active = data.services.filter((s) => s.active);
      const prices = active.filter((s) => s.priceKind !== "quote").map((s) => s.priceMinor);
      const bare = active.filter((s) => !s.picture).length;
      const range = [Math.min(...prices), Math.max(...prices)].map((minor) => moneyWords(minor, data.currency));
      return {
        standing: [
          `${counted(active.length, "service")} can be booked${prices.length ? `, from ${range[0]} to ${range[1]}` : ""}.`,
          ...(bare
            ? [`${counted(bare, "service")} without a picture: customers choose quicker where they see one.`]
            : []),
        ],
        next: [
          { words: "See them as customers do", href: "/book" },
          { words: "Change many prices at once", href: "/setup/prices" },
        ],
      };
    }
    case "technicians": {
      const soon = addDays(data.today, soonDays);
      const hours = data.technicians.flatMap((t) => t.hours).reduce((sum, h) => sum + h.closes - h.opens, 0) / 60;
      return {
        standing: [
          `${counted(data.technicians.length, "technician")}, ${Math.round(hours)} hours a week.`,
          ...data.technicians.flatMap((t) =>
            t.skills
              .filter((s) => s.validUntil && s.validUntil < soon)
              .map((s) => `${t.name}: “${s.name}” ends on ${dateWords(s.validUntil!)}.`),
          ),
        ],
        next: [{ words: "See how full their days are", href: "/board" }],
      };
    }
    case "people":
      return {
        standing: [`${counted(data.people.filter((p) => p.active).length, "person", "people")} may sign in.`],
        next: [{ words: "Put a technician on the team", href: "/setup/technicians?id=new" }],
      };
    case "extras":
      return {
        standing: [`${counted(data.extras.filter((x) => x.active).length, "extra")} can be added while booking.`],
        next: [{ words: "Choose which services offer them", href: "/setup/services" }],
      };
    case "job-patterns":
      return {
        standing: [
          data.jobPatterns.length
            ? `${counted(data.jobPatterns.filter((p) => p.active).length, "job pattern")} can be chosen on the phone, in quotes and in repeats.`
            : "A job pattern is a piece of work with a name: “Small sweep”, “Yearly service with gaskets”. It fills in services, answers, extras, notes and the checklist in one step.",
        ],
        next: [{ words: "See what comes back by them", href: "/repeats" }],
      };
    default:
      return { standing: [], next: [] };
  }
}

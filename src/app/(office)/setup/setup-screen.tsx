"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRouter } from "next/navigation";
import type { ReactNode } from "react";
import { roles } from "@/core/people/permissions";
import { moneyWords } from "@/core/money/amounts";
import { durationWords, weekdaysWords } from "@/core/time/words";
import { Code } from "@/ui/arch";
import { LinkBox } from "@/ui/link-box";
import { hues, ink } from "@/ui/palette";
import type { ViewOutput } from "@/api/client";
import { BusinessForm } from "./business-form";
import type { PartPath } from "./parts";
import { PartsRail } from "./parts-rail";
import { PersonForm } from "./person-form";
import { RulesForm } from "./rules-form";
import { ExtraForm } from "./extra-form";
import { PricesForm } from "./prices-form";
import { ServiceForm } from "./service-form";
import { TechnicianForm } from "./technician-form";
import { ZoneForm } from "./zone-form";

export type SetupData = ViewOutput<"setup">;

interface Entry {
  id: number;
  name: ReactNode;
  detail: string;
}

/** Parts at the left, what there is of one in the middle, its form at the right. */
export function SetupScreen({ part, data, id }: { part: PartPath; data: SetupData; id: string | null }) {
  const router = useRouter();
  const entries = entriesOf(part, data);
  const open = (chosen: number | "new") => router.push(`/setup/${part}?id=${chosen}`);
  const saved = (savedId?: number) => (savedId ? router.push(`/setup/${part}?id=${savedId}`) : undefined, router.refresh());
  // An open service needs the room: its form stands beside a try-out.
  const narrow = part === "services" && id !== null;
  return (
    <Box sx={{ display: "flex", flex: 1, borderTop: `1px solid ${ink.line}`, minHeight: 0 }}>
      <PartsRail here={part} />
      {entries && (
        <Box sx={{ width: narrow ? 216 : 310, flex: "none", borderRight: `1px solid ${ink.line}`, py: 3 }}>
          <Box sx={{ px: 4, pb: 3 }}><Button variant="outlined" size="small" onClick={() => open("new")}>{newWords[part]}</Button></Box>
          {entries.map((entry) => (
            <LinkBox key={entry.id} href={`/setup/${part}?id=${entry.id}`} aria-current={String(entry.id) === id ? "true" : undefined} sx={{ display: "block", px: 4, py: 2, borderTop: `1px solid ${ink.line}`, textDecoration: "none", color: ink.ink, bgcolor: String(entry.id) === id ? ink.plaster : "transparent" }}>
              <Box sx={{ fontWeight: 650 }}>{entry.name}</Box>
              {!narrow && <Box sx={{ fontSize: 13.5, color: ink.ash }}>{entry.detail}</Box>}
            </LinkBox>
          ))}
        </Box>
      )}
      <Box sx={{ flex: 1, minWidth: 0, p: 6, maxWidth: part === "services" ? 1200 : 880 }}>
        <Form part={part} data={data} id={id} saved={saved} />
      </Box>
    </Box>
  );
}

function Form({ part, data, id, saved }: { part: PartPath; data: SetupData; id: string | null; saved: (id?: number) => void }) {
  const of = <T extends { id: number }>(rows: T[]) => rows.find((row) => String(row.id) === id) ?? null;
  if (part === "business") return <BusinessForm data={data} saved={saved} />;
  if (part === "windows") return <RulesForm data={data} saved={saved} />;
  if (part === "prices") return <PricesForm data={data} saved={saved} />;
  if (id === null) return <Box sx={{ color: ink.ash }}>Choose one at the left, or add a new one.</Box>;
  switch (part) {
    case "zones": return <ZoneForm key={id} zone={of(data.zones)} data={data} saved={saved} />;
    case "technicians": return <TechnicianForm key={id} technician={of(data.technicians)} data={data} saved={saved} />;
    case "services": return <ServiceForm key={id} service={of(data.services)} data={data} saved={saved} />;
    case "extras": return <ExtraForm key={id} extra={of(data.extras)} data={data} saved={saved} />;
    case "people": return <PersonForm key={id} person={of(data.people)} data={data} saved={saved} />;
  }
}

const newWords: Record<PartPath, string> = { business: "", windows: "", prices: "", extras: "New extra", zones: "New zone", technicians: "New technician", services: "New service", people: "New person" };

function entriesOf(part: PartPath, data: SetupData): Entry[] | null {
  switch (part) {
    case "zones": return data.zones.map((z) => ({ id: z.id, name: z.name, detail: `${z.postcodes.slice(0, 4).join(", ")} · ${weekdaysWords(z.weekdays)}${z.surchargeMinor ? ` · +${moneyWords(z.surchargeMinor, data.currency)}` : ""}` }));
    case "technicians": return data.technicians.map((t) => ({ id: t.id, name: t.name, detail: t.skills.map((s) => s.name).join(" · ") || "no skills yet" }));
    case "services": return data.services.map((s) => ({ id: s.id, name: <><Code code={s.code} colour={hues[s.hue]!} /> {s.name}</>, detail: `${moneyWords(s.priceMinor, data.currency)} · ${durationWords(s.minutes)}${s.active ? "" : " · set aside"}` }));
    case "extras": return data.extras.map((x) => ({ id: x.id, name: x.name, detail: `${moneyWords(x.priceMinor, data.currency)} a ${x.unit}${x.active ? "" : " · set aside"}` }));
    case "people": return data.people.map((p) => ({ id: p.id, name: p.name, detail: `${roles[p.role].name} · ${p.mail}${p.active ? "" : " · left"}` }));
    default: return null;
  }
}

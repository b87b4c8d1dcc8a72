"use client";
import { LinkBox } from "@/ui/link-box";
import { useShown } from "@/ui/live";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { PartsRail } from "../parts-rail";
import { FitsTogether } from "./fits-together";
import { Kits } from "./kits";

interface Step {
  name: string;
  /** What it is worth to do it. */
  worth: string;
  href: string;
  done: boolean;
  sum: string;
}

/** The way from nothing to the first booking, what does not fit together, and a kit to begin with. */
export function FirstSteps() {
  const view = useShown("first-steps", {});
  const { counts } = view;
  const steps: Step[] = [
    {
      name: "Business",
      worth: "Your address and tax stand on documents, and drives begin there.",
      href: "/setup/business",
      done: counts.business > 0,
      sum: "address and tax known",
    },
    {
      name: "Services",
      worth: "Customers see what you do, what it costs and how long it takes.",
      href: "/setup/services",
      done: counts.services > 0,
      sum: `${counts.services} can be booked`,
    },
    {
      name: "Team",
      worth: "Windows are offered only where somebody with the skills can come.",
      href: "/setup/technicians",
      done: counts.technicians > 0,
      sum: `${counts.technicians} on the team`,
    },
    {
      name: "Zones",
      worth: "You are asked only where you go, on your terms there.",
      href: "/setup/zones",
      done: counts.zones > 0,
      sum: `${counts.zones} ${counts.zones === 1 ? "zone" : "zones"}`,
    },
    {
      name: "Windows",
      worth: "Customers choose when you come, without a call.",
      href: "/setup/windows",
      done: counts.windows > 0,
      sum: `${counts.windows} in the pattern`,
    },
    {
      name: "First booking",
      worth: "Open the front door and book as a customer would.",
      href: "/book",
      done: counts.bookings > 0,
      sum: `${counts.bookings} so far`,
    },
  ];
  const next = steps.find((s) => !s.done);
  return (
    <Box sx={{ display: "flex", flex: 1, borderTop: `1px solid ${ink.line}`, minHeight: 0 }}>
      <PartsRail here="start" />
      <Box sx={{ flex: 1, minWidth: 0, p: 6, maxWidth: 1040, display: "grid", gap: 7 }}>
        <Box component="section" aria-label="First steps">
          <Typography variant="h2" sx={{ mb: 3 }}>
            {next
              ? `${steps.filter((s) => s.done).length} of ${steps.length} steps to the first booking`
              : "You take bookings"}
          </Typography>
          <Box sx={{ display: "grid", gridTemplateColumns: `repeat(${steps.length}, minmax(0, 1fr))`, gap: 3 }}>
            {steps.map((step, i) => (
              <LinkBox
                key={step.name}
                href={step.href}
                sx={{
                  display: "block",
                  borderRadius: arch,
                  border: `${step === next ? 2 : 1}px solid ${step.done ? ink.moss : step === next ? ink.pine : ink.line}`,
                  bgcolor: step.done ? "#E9EFE0" : "#fff",
                  textAlign: "center",
                  pt: 6,
                  pb: 3,
                  px: 2,
                  minHeight: 148,
                  textDecoration: "none",
                  color: ink.ink,
                }}
              >
                <b>
                  {i + 1}. {step.name}
                </b>
                <Box sx={{ fontSize: 13.5, color: ink.ash, mt: 1 }}>{step.done ? `✓ ${step.sum}` : step.worth}</Box>
              </LinkBox>
            ))}
          </Box>
        </Box>
        <Box component="section" aria-label="Check">
          <Typography variant="h2" sx={{ mb: 2 }}>
            Does it fit together?
          </Typography>
          <FitsTogether contradictions={view.contradictions} offered={view.offered} />
        </Box>
        <Kits kits={view.kits} currency={view.currency} fresh={counts.services === 0} />
      </Box>
    </Box>
  );
}

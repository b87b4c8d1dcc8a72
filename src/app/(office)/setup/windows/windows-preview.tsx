"use client";
import type { ViewOutput } from "@/api/client";
import { dayShort, windowWords } from "@/core/time/words";
import { AddressField, type FoundAddress } from "@/ui/address-field";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Tooltip from "@mui/material/Tooltip";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";
import type { Rules, SetupData } from "../data";

type Preview = ViewOutput<"preview-windows">;
const pause = 350;

/** Two weeks of windows by the rules as they are typed, for one address and one service. */
export function WindowsPreview({ rules, data }: { rules: Rules; data: SetupData }) {
  const services = data.services.filter((s) => s.active);
  const [address, setAddress] = useState<FoundAddress | null>(null);
  const [serviceId, setServiceId] = useState(services[0]?.id ?? 0);
  const typed = useSettled(rules, pause);
  const { data: first } = useLive("find-address", {
    text: data.business.place.line.split(",")[0]?.replace(/^\d+ /, "") || "1",
  });
  const sample = address ?? first?.[0] ?? null;
  const { data: preview, problem } = useLive(
    "preview-windows",
    sample && serviceId ? { rules: typed, addressId: sample.id, serviceId } : null,
  );
  const [last, setLast] = useState<Preview | null>(null);
  useEffect(() => {
    if (preview) setLast(preview);
  }, [preview]);
  const shown = preview ?? last;
  const service = services.find((s) => s.id === serviceId);
  return (
    <Box
      component="aside"
      aria-label="Two weeks as customers see them"
      sx={{
        bgcolor: ink.plaster,
        borderRadius: "6px",
        p: 5,
        position: "sticky",
        top: 16,
        maxHeight: "calc(100dvh - 32px)",
        overflowY: "auto",
        display: "grid",
        gap: 3,
      }}
    >
      <Typography variant="h3">Two weeks, as customers see them</Typography>
      <AddressField label="For an address" value={sample} onValue={setAddress} />
      <TextField
        select
        label="and a service"
        value={serviceId || ""}
        onChange={(e) => setServiceId(Number(e.target.value))}
      >
        {services.map((s) => (
          <MenuItem key={s.id} value={s.id}>
            {s.name}
          </MenuItem>
        ))}
      </TextField>
      {service?.capacity && (
        <Box sx={{ fontSize: 13, color: ink.ash }}>This service has a capacity mode of its own.</Box>
      )}
      {!serviceId && <Box>Make a service first.</Box>}
      {problem && (
        <Box role="alert" sx={{ color: "error.main", fontSize: 14 }}>
          {problem.fields ? "Mend the entries first; the weeks follow." : problem.sentence}
        </Box>
      )}
      <Box aria-live="polite" aria-busy={!preview && !problem} sx={{ opacity: preview || problem ? 1 : 0.6 }}>
        {shown && (
          <Box sx={{ fontSize: 14, color: ink.ash, mb: 2 }}>
            {shown.zone ?? "Outside all zones"} ·{" "}
            {shown.days.reduce((n, d) => n + d.windows.filter((w) => w.offered).length, 0)} of{" "}
            {shown.days.reduce((n, d) => n + d.windows.length, 0)} windows offered
          </Box>
        )}
        {shown?.days.map((day) => (
          <Day
            key={day.date}
            day={day}
            whyNot={sample && `/why-not?address=${sample.id}&service=${serviceId}&date=${day.date}`}
          />
        ))}
      </Box>
    </Box>
  );
}

function Day({ day, whyNot }: { day: Preview["days"][number]; whyNot: string | null }) {
  const refused = day.windows.filter((w) => !w.offered);
  const only = new Set(refused.map((w) => w.why));
  return (
    <Box sx={{ display: "flex", gap: 2, py: 1, borderTop: `1px solid ${ink.line}`, fontSize: 13.5 }}>
      <Box sx={{ width: 74, flex: "none", pt: 0.5, whiteSpace: "nowrap", fontSize: 13 }}>{dayShort(day.date)}</Box>
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          {day.windows.map((w) => (
            <Tooltip key={`${w.from} ${w.to}`} title={w.offered ? w.who.join(", ") || "open" : (w.why ?? "")}>
              <Box
                tabIndex={0}
                aria-label={`${windowWords(w.from, w.to)}: ${w.offered ? `offered, ${w.who.join(", ")}` : `not offered, ${w.why}`}`}
                sx={{
                  px: 1.25,
                  pt: 0.75,
                  minWidth: 40,
                  fontSize: 13,
                  textAlign: "center",
                  borderRadius: arch,
                  border: `1px ${w.offered ? "solid" : "dashed"} ${w.offered ? ink.moss : ink.line}`,
                  bgcolor: w.offered ? "#fff" : "transparent",
                  color: w.offered ? ink.ink : ink.ash,
                  textDecoration: w.offered ? "none" : "line-through",
                }}
              >
                {windowWords(w.from, w.to)}
              </Box>
            </Tooltip>
          ))}
        </Box>
        {day.windows.length === 0 && <Box sx={{ color: ink.ash, pt: 0.5 }}>no windows</Box>}
        {refused.length > 0 && (
          <Box sx={{ color: ink.ash, fontSize: 13, mt: 0.5 }}>
            {only.size === 1 ? [...only][0] : `${refused.length} not offered`}
            {whyNot && (
              <>
                {" "}
                ·{" "}
                <LinkBox href={whyNot} sx={{ color: ink.lake }}>
                  Why not?
                </LinkBox>
              </>
            )}
          </Box>
        )}
      </Box>
    </Box>
  );
}

/** A value once it has not changed for a moment. */
function useSettled<T>(value: T, ms: number): T {
  const [settled, setSettled] = useState(value);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(value), ms);
    return () => clearTimeout(timer);
  }, [value, ms]);
  return settled;
}

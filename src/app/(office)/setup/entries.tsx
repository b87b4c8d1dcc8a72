"use client";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useRouter } from "next/navigation";
import { useState } from "react";
import type { Entry } from "./data";
import type { PartPath } from "./parts";

const manyEntries = 12;

const mostShown = 80;

/** What there is of a part; long lists can be narrowed down. */
export function Entries({
  part,
  entries,
  id,
  narrow,
  onExport,
}: {
  part: PartPath;
  entries: Entry[];
  id: string | null;
  narrow: boolean;
  /** What there is as a file; null where that makes no sense. */
  onExport: (() => void) | null;
}) {
  const router = useRouter();
  const [text, setText] = useState("");
  const asked = text.trim().toLowerCase();
  const [all, setAll] = useState(false);
  const open = entries.find((e) => String(e.id) === id);
  const found = asked ? entries.filter((e) => `${e.name} ${e.detail}`.toLowerCase().includes(asked)) : entries;
  const first = found.slice(0, mostShown);
  const shown = all ? found : open && found.includes(open) && !first.includes(open) ? [open, ...first] : first;
  return (
    <Box
      sx={{
        width: narrow ? 216 : part === "zones" ? 240 : 310,
        flex: "none",
        borderRight: `1px solid ${ink.line}`,
        py: 3,
      }}
    >
      <Box sx={{ px: 4, pb: 3, display: "flex", gap: 2, flexWrap: "wrap" }}>
        <Button variant="outlined" size="small" onClick={() => router.push(`/setup/${part}?id=new`)}>
          {newWords[part]}
        </Button>
        {part === "services" && (
          <Button size="small" onClick={() => router.push("/setup/services?id=order")}>
            Order
          </Button>
        )}
        {onExport && (
          <>
            <Button size="small" onClick={() => router.push(`/import?kind=${part}`)}>
              Import
            </Button>
            <Button size="small" onClick={onExport}>
              Export CSV
            </Button>
          </>
        )}
        {part === "zones" && id !== null && (
          <Button size="small" onClick={() => router.push("/setup/zones")}>
            All zones
          </Button>
        )}
        {entries.length > manyEntries && (
          <TextField label="Find in this list" value={text} onChange={(e) => setText(e.target.value)} sx={{ mt: 1 }} />
        )}
      </Box>
      {asked && found.length === 0 && <Box sx={{ px: 4, color: ink.ash }}>Nothing here is called that.</Box>}
      {shown.map((entry) => (
        <LinkBox
          key={entry.id}
          href={`/setup/${part}?id=${entry.id}`}
          prefetch={false}
          aria-current={String(entry.id) === id ? "true" : undefined}
          sx={{
            display: "block",
            px: 4,
            py: 2,
            borderTop: `1px solid ${ink.line}`,
            textDecoration: "none",
            color: ink.ink,
            bgcolor: String(entry.id) === id ? ink.plaster : "transparent",
          }}
        >
          <Box sx={{ fontWeight: 650 }}>
            {entry.sign} {entry.name}
          </Box>
          {!narrow && <Box sx={{ fontSize: 13.5, color: ink.ash }}>{entry.detail}</Box>}
        </LinkBox>
      ))}
      {found.length > shown.length && (
        <Box sx={{ px: 4, py: 2, borderTop: `1px solid ${ink.line}` }}>
          <Button size="small" onClick={() => setAll(true)}>
            Show all {found.length}
          </Button>
        </Box>
      )}
    </Box>
  );
}

const newWords: Record<PartPath, string> = {
  business: "",
  hours: "",
  security: "",
  windows: "",
  prices: "",
  "front-door": "",
  sharing: "",
  messages: "",
  occasions: "",
  senders: "",
  reviews: "",
  loyalty: "",
  extras: "New extra",
  "job-patterns": "New job pattern",
  coupons: "New coupon",
  zones: "New zone",
  technicians: "New technician",
  services: "New service",
  people: "New person",
};

"use client";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useDeferredValue } from "react";
import { useOffice } from "../office-context";

interface Typing {
  name: string;
  mail: string;
  phone: string;
  addressId: string | null;
  but: number | null;
}

/** Says, while somebody is being typed, who of those we know they may be. */
export function SameAs({ onOpen, ...typing }: Typing & { onOpen: (id: number) => void }) {
  const { permissions } = useOffice().person;
  const mayAsk = permissions.includes("customers.change") && permissions.includes("visits.all");
  const asked = useDeferredValue(JSON.stringify(typing));
  const { data } = useLive("same-as", mayAsk && typing.name.trim().length > 1 ? (JSON.parse(asked) as Typing) : null);
  if (!data?.length) return null;
  return (
    <Box role="status" sx={{ borderLeft: `3px solid ${ink.honey}`, pl: 3, display: "grid", gap: 1, fontSize: 14.5 }}>
      <b>{data[0]!.certain ? "We know them already" : "This may be somebody we know"}</b>
      {data.map((known) => (
        <Box key={known.id} sx={{ display: "flex", gap: 3, alignItems: "baseline" }}>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            {known.name}
            <Box component="span" sx={{ color: ink.ash }}>
              {[known.phone, known.mail, known.place, known.archived_at === null ? "" : "archived"]
                .filter(Boolean)
                .map((words) => ` · ${words}`)
                .join("")}
            </Box>
          </Box>
          <Button size="small" onClick={() => onOpen(known.id)} sx={{ flex: "none" }}>
            Open
          </Button>
        </Box>
      ))}
    </Box>
  );
}

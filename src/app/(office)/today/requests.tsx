"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import type { ViewOutput } from "@/api/client";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";

type Today = ViewOutput<"today">;

/** Requests that wait for a person, and whose they are. */
export function Requests({ requests, incoming, canAnswer }: Pick<Today, "requests" | "incoming" | "canAnswer">) {
  const router = useRouter();
  const { send, busy } = useChange("answer-request");
  const { enqueueSnackbar } = useSnackbar();
  if (requests.length === 0) return null;
  const answered = async (id: number, name: string) => {
    if (!(await send({ id }))) return;
    enqueueSnackbar(`The request of ${name} is answered`, { variant: "success" });
    router.refresh();
  };
  return (
    <Box component="section" aria-label="Requests">
      {incoming && <Box sx={{ color: ink.ash, fontSize: 14, pb: 1 }}>{incoming.isMe ? "You handle" : `${incoming.name} handles`} incoming.</Box>}
      {requests.map((r) => (
        <Box key={r.id} sx={{ display: "flex", gap: 4, py: 2.25, borderTop: `1px solid ${ink.line}` }}>
          <Box aria-hidden="true" sx={{ width: 20, textAlign: "center", color: ink.ember, fontWeight: 700 }}>?</Box>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: 650 }}>{r.name} asks for {r.service ?? "a visit"}: {r.about}</Box>
            <Box sx={{ color: ink.ash, fontSize: 14 }}>{r.address}. {r.wishes}</Box>
            <Box sx={{ fontSize: 14 }}><a href={`tel:${r.phone.replace(/[^\d+]/g, "")}`}>{r.phone}</a> · <a href={`mailto:${r.mail}`}>{r.mail}</a></Box>
          </Box>
          {canAnswer && <Button size="small" disabled={busy} onClick={() => void answered(r.id, r.name)} sx={{ flex: "none", alignSelf: "flex-start" }}>Answered</Button>}
        </Box>
      ))}
    </Box>
  );
}

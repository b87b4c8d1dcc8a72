"use client";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { WholeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Checkbox from "@mui/material/Checkbox";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useState } from "react";
import type { FirstStepsView } from "../data";
import { counted } from "@/core/words";

/** Choose a trade and get services to change, not an empty page. */
export function Kits({ kits, currency, fresh }: { kits: FirstStepsView["kits"]; currency: string; fresh: boolean }) {
  const router = useRouter();
  const [open, setOpen] = useState<string | null>(null);
  const [without, setWithout] = useState<string[]>([]);
  const [tax, setTax] = useState(21);
  const { send, busy, problem, wrong } = useChange("take-kit");
  const { enqueueSnackbar } = useSnackbar();
  const kit = kits.find((k) => k.id === open);
  const chosen = kit?.services.filter((s) => !s.there && !without.includes(s.code)) ?? [];

  const take = async () => {
    const done = await send({ kit: kit!.id, services: chosen.map((s) => s.code), taxBp: tax * 100 });
    if (!done) return;
    enqueueSnackbar(
      `${counted(done.value.made, "service")} made${done.value.windows ? ", with a window pattern" : ""}. Change them as you like.`,
      { variant: "success" },
    );
    router.push("/setup/services");
  };
  return (
    <Box component="section" aria-label="Starter kits">
      <Typography variant="h2">{fresh ? "Begin with a starter kit" : "Starter kits"}</Typography>
      <Typography sx={{ color: ink.ash, mt: 1, mb: 3 }}>
        Services of a trade with prices, minutes, skills and questions, to change as you like. What you have already
        stays as it is.
      </Typography>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mb: 4 }}>
        {kits.map((k) => (
          <ButtonBase
            key={k.id}
            aria-pressed={k.id === open}
            onClick={() => {
              setOpen(k.id === open ? null : k.id);
              setWithout([]);
            }}
            sx={{
              display: "block",
              textAlign: "left",
              width: 230,
              p: 3,
              borderRadius: "6px",
              border: `${k.id === open ? 2 : 1}px solid ${k.id === open ? ink.pine : ink.line}`,
              bgcolor: k.id === open ? ink.plaster : "#fff",
            }}
          >
            <b>{k.name}</b>
            <Box sx={{ fontSize: 13.5, color: ink.ash, mt: 0.5 }}>{k.about}</Box>
          </ButtonBase>
        ))}
      </Box>
      {kit && (
        <>
          {problem && (
            <Alert severity="error" sx={{ mb: 2 }}>
              {problem.sentence}
            </Alert>
          )}
          {kit.services.map((s) => (
            <Box
              key={s.code}
              sx={{ display: "flex", gap: 2, alignItems: "center", borderTop: `1px solid ${ink.line}`, py: 1 }}
            >
              <Checkbox
                checked={!s.there && !without.includes(s.code)}
                disabled={s.there}
                onChange={(e) =>
                  setWithout(e.target.checked ? without.filter((c) => c !== s.code) : [...without, s.code])
                }
                slotProps={{ input: { "aria-label": s.name } }}
              />
              <Box sx={{ flex: 1, minWidth: 0 }}>
                <b>{s.name}</b>
                {s.there && " (you have it)"}
                <Box sx={{ fontSize: 13.5, color: ink.ash }}>
                  {s.description} Skills: {s.skills.join(", ")}.
                </Box>
              </Box>
              <Box sx={{ whiteSpace: "nowrap" }}>
                {moneyWords(s.priceMinor, currency)} · {durationWords(s.minutes)}
              </Box>
            </Box>
          ))}
          <Box sx={{ display: "flex", gap: 3, alignItems: "flex-start", mt: 3 }}>
            <WholeField
              label="Your usual tax, %"
              value={tax}
              onValue={setTax}
              wrong={wrong("/taxBp")}
              sx={{ width: 150 }}
            />
            <Button
              variant="contained"
              disabled={busy || chosen.length === 0}
              onClick={() => void take()}
              sx={{ height: 40 }}
            >
              {chosen.length
                ? `Take ${chosen.length} ${chosen.length === 1 ? "service" : "services"}`
                : "Nothing chosen"}
            </Button>
          </Box>
        </>
      )}
    </Box>
  );
}

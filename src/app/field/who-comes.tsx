"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { visitStates } from "@/core/visits/states";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";

type Stop = ViewOutput<"field-day">["stops"][number];

/** Who comes to a time that customers share: how many seats, how they are reached, and who has not come. */
export function WhoComes({
  stop,
  currency,
  onMissing,
}: {
  stop: Stop;
  currency: string;
  onMissing: (visitId: number) => void;
}) {
  return (
    <Box component="ul" aria-label="Who comes" sx={{ listStyle: "none", m: 0, mt: 3, p: 0 }}>
      {stop.comes.map((one) => {
        const missing = one.state === "no access";
        const facts = [
          one.note,
          ...one.answers,
          one.toCollectMinor > 0 ? `${moneyWords(one.toCollectMinor, currency)} to collect` : "",
        ].filter(Boolean);
        return (
          <Box
            component="li"
            key={one.id}
            sx={{
              display: "flex",
              alignItems: "center",
              gap: 3,
              py: 2,
              minHeight: 52,
              borderTop: `1px solid ${ink.line}`,
              color: missing ? ink.ash : ink.ink,
            }}
          >
            <Box sx={{ flex: 1, minWidth: 0, overflowWrap: "anywhere" }}>
              {one.customer}, {one.seats} {one.seats === 1 ? "seat" : "seats"}
              {missing && ", not here"}
              <Box sx={{ color: ink.ash, fontSize: 15 }}>
                <a href={`tel:${one.phone.replace(/[^\d+]/g, "")}`}>{one.phone}</a>
                {facts.map((words) => ` · ${words}`)}
              </Box>
            </Box>
            {visitStates.follows("no access", one.state) && (
              <Button onClick={() => onMissing(one.id)} sx={{ minHeight: 48, whiteSpace: "nowrap" }}>
                Not here
              </Button>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

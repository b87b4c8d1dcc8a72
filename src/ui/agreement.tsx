"use client";
import type { Agreement } from "@/core/catalogue/agreement";
import { orderTermsWords } from "@/core/catalogue/terms";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";

/** The rules that one agrees to, in plain words. */
export function AgreementWords({
  agreement,
  currency,
}: {
  agreement: Omit<Agreement, "totalMinor" | "nowMinor">;
  currency: string;
}) {
  return (
    <Box sx={{ color: ink.ash, my: 4 }}>
      You can move it yourself until {durationWords(agreement.moveHours * 60)} before, and cancel until{" "}
      {durationWords(agreement.cancelHours * 60)} before.{" "}
      {orderTermsWords(agreement.items, (minor) => moneyWords(minor, currency)).join(" ")}
      {agreement.words && (
        <Box component="details" sx={{ mt: 2 }}>
          <summary>Our terms</summary>
          <Box sx={{ whiteSpace: "pre-wrap", mt: 1 }}>{agreement.words}</Box>
        </Box>
      )}
    </Box>
  );
}

"use client";
import type { Agreement, Harsher } from "@/core/catalogue/agreement";
import { orderTermsWords } from "@/core/catalogue/terms";
import { moneyWords } from "@/core/money/amounts";
import type { Problem } from "@/core/problems";
import { durationWords } from "@/core/time/words";
import { ink } from "@/ui/palette";
import Alert from "@mui/material/Alert";
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

/** What has become dearer or stricter since it was read; nothing where a refusal is about something else. */
export const changesOf = (problem: Problem | null): readonly Harsher[] =>
  problem?.code === "terms-changed" ? (problem.details as { changes: Harsher[] }).changes : [];

/** Old and new side by side. */
export function Changes({ changes }: { changes: readonly Harsher[] }) {
  return (
    <Alert severity="warning" role="alert" sx={{ mb: 3, fontSize: 16 }}>
      This has changed since you read it. Nothing is booked yet.
      <Box component="table" sx={{ mt: 2, "& th, & td": { textAlign: "left", verticalAlign: "top", pr: 3, py: 0.5 } }}>
        <thead>
          <tr>
            <th />
            <th>Before</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {changes.map(({ what, before, now }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td>{before}</td>
              <td>
                <b>{now}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Alert>
  );
}

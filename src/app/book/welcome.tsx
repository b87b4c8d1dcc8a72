"use client";
import { imageAddress } from "@/ui/images";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import type { Business } from "./data";
import dynamic from "next/dynamic";
import { useState } from "react";

// Few ask: whoever does brings the form.
const QuestionForm = dynamic(() => import("./question").then((m) => m.QuestionForm));

/** The owner's picture and words, before the first question. */
export const Welcome = ({ business }: { business: Business }) => (
  <>
    {business.picture && (
      <Box
        component="img"
        src={imageAddress(business.picture)}
        alt=""
        sx={{ display: "block", width: "100%", maxHeight: 240, objectFit: "cover", borderRadius: arch, mb: 4 }}
      />
    )}
    {business.welcome && <Typography sx={{ mb: 4, whiteSpace: "pre-wrap" }}>{business.welcome}</Typography>}
  </>
);

/** What people ask before they book, and how to reach us. */
export function Answers({ business }: { business: Business }) {
  return (
    <Box component="section" aria-label="Questions and answers" sx={{ mt: 8 }}>
      {business.answers.map(({ question, answer }) => (
        <Box
          key={question}
          component="details"
          sx={{ borderTop: `1px solid ${ink.line}`, "& summary": { py: 3, cursor: "pointer", fontWeight: 650 } }}
        >
          <summary>{question}</summary>
          <Box sx={{ pb: 4, whiteSpace: "pre-wrap" }}>{answer}</Box>
        </Box>
      ))}
      <AskQuestion />
      {business.showsContact && (
        <Typography sx={{ color: ink.ash, borderTop: `1px solid ${ink.line}`, pt: 3 }}>
          Would you rather talk? <a href={`tel:${business.phone.replace(/[^\d+]/g, "")}`}>{business.phone}</a> or{" "}
          <a href={`mailto:${business.mail}`}>{business.mail}</a>
        </Typography>
      )}
    </Box>
  );
}

/** A question before booking: answered by email or text, without an account. */
function AskQuestion() {
  const [open, setOpen] = useState(false);
  return (
    <Box
      component="details"
      onToggle={(e: { currentTarget: HTMLDetailsElement }) => setOpen(e.currentTarget.open)}
      sx={{ borderTop: `1px solid ${ink.line}`, "& summary": { py: 3, cursor: "pointer", fontWeight: 650 } }}
    >
      <summary>Ask us something</summary>
      {open && <QuestionForm />}
    </Box>
  );
}

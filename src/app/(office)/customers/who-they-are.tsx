"use client";
import { dueWords } from "@/core/money/due";
import { contactUseWords, contactWords } from "@/core/people/contact-persons";
import { upper } from "@/core/words";
import { ink } from "@/ui/palette";
import { Fact } from "@/ui/side-sheet";
import Box from "@mui/material/Box";
import Chip from "@mui/material/Chip";
import { useRouter } from "next/navigation";
import type { ReactNode } from "react";
import { type Customer, reachedByWords } from "./data";
import { billingWords } from "./billing-fields";

/** Who they are and how they are reached. What one may not see, and what is not there, is left out. */
export function WhoTheyAre({ customer: c }: { customer: Customer }) {
  const router = useRouter();
  return (
    <Box component="section" aria-label="Who they are">
      {c.phone && (
        <Fact name="Phone">
          <PlainLink href={`tel:${c.phone.replace(/\s/g, "")}`}>{c.phone}</PlainLink>
        </Fact>
      )}
      {c.mail && (
        <Fact name="Email">
          <PlainLink href={`mailto:${c.mail}`}>{c.mail}</PlainLink>
        </Fact>
      )}
      {c.phone === "" && c.mail === "" && !c.erased && <Fact name="Contact">no phone and no email yet</Fact>}
      {(c.contacts ?? []).map((one) => (
        <Fact key={contactWords(one)} name={one.role ? upper(one.role) : "Also"}>
          {one.name}
          {one.phone && (
            <div>
              <PlainLink href={`tel:${one.phone.replace(/\s/g, "")}`}>{one.phone}</PlainLink>
            </div>
          )}
          {one.mail && (
            <div>
              <PlainLink href={`mailto:${one.mail}`}>{one.mail}</PlainLink>
            </div>
          )}
          {one.uses.length > 0 && (
            <Box sx={{ color: ink.ash, fontSize: 14 }}>
              For {one.uses.map((use) => contactUseWords[use]).join(", ")}
            </Box>
          )}
        </Fact>
      ))}
      {c.reachedBy !== "any" && <Fact name="Reached by">{reachedByWords[c.reachedBy]}, best</Fact>}
      {c.tags.length > 0 && (
        <Fact name="Tags">
          <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
            {c.tags.map((tag) => (
              <Chip
                key={tag}
                label={tag}
                size="small"
                variant="outlined"
                onClick={() => router.push(`/customers?tag=${encodeURIComponent(tag)}`)}
              />
            ))}
          </Box>
        </Fact>
      )}
      {c.source && <Fact name="Source">{c.source}</Fact>}
      <Fact name="Terms">
        {c.paymentDays === null
          ? `${c.businessDays} days to pay, as everybody`
          : `to pay ${dueWords({ days: c.paymentDays, from: c.billing.paymentFrom })}`}
        <div>billed {billingWords[c.billing.by ?? c.businessBilling]}</div>
        {c.billing.taxKind !== "standard" && <div>{c.billing.taxKind}</div>}
      </Fact>
      {c.bill && (
        <Fact name="Bills to">
          {[c.bill.name, c.bill.mail, c.bill.address].filter(Boolean).map((line) => (
            <div key={line}>{line}</div>
          ))}
        </Fact>
      )}
      {c.technicianNote && <Note name="For technicians">{c.technicianNote}</Note>}
      {c.insideNote && <Note name="For inside only">{c.insideNote}</Note>}
    </Box>
  );
}

const PlainLink = ({ href, children }: { href: string; children: ReactNode }) => (
  <Box component="a" href={href} sx={{ color: ink.lake }}>
    {children}
  </Box>
);

const Note = ({ name, children }: { name: string; children: ReactNode }) => (
  <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 2, fontSize: 14.5 }}>
    <Box sx={{ color: ink.ash, mb: 0.5 }}>{name}</Box>
    <Box sx={{ whiteSpace: "pre-wrap" }}>{children}</Box>
  </Box>
);

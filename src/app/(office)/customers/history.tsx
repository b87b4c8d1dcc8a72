"use client";
import { useRouter } from "next/navigation";
import { moneyWords } from "@/core/money/amounts";
import { localDate } from "@/core/time/local";
import { dateWords, dayShort } from "@/core/time/words";
import { Code, VisitState } from "@/ui/arch";
import { LinkBox } from "@/ui/link-box";
import { MessageList } from "@/ui/message-list";
import { hues, ink } from "@/ui/palette";
import { Fact, SheetSection } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import { type Language, languageNames, languages } from "@/core/messages/languages";
import { type Channel, channelNames, channels } from "@/core/messages/purposes";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Button from "@mui/material/Button";
import dynamic from "next/dynamic";
import { type ReactNode, useState } from "react";
import { useOffice } from "../office-context";
import type { Customer } from "./data";

const Line = ({ href, children }: { href: string; children: ReactNode }) => (
  <LinkBox
    href={href}
    sx={{
      display: "flex",
      gap: 3,
      alignItems: "baseline",
      py: 1.25,
      px: 1,
      mx: -1,
      borderTop: `1px solid ${ink.line}`,
      fontSize: 14.5,
      textDecoration: "none",
      color: ink.ink,
      "&:hover": { bgcolor: ink.plaster },
    }}
  >
    {children}
  </LinkBox>
);
/** A day as it is read: with its weekday in this year, with the year otherwise. */
const dayOf = (date: string, { today }: Customer): string =>
  date.slice(0, 4) === today.slice(0, 4) ? dayShort(date) : dateWords(date);

const Cell = ({ width, right, children }: { width?: number; right?: boolean; children: ReactNode }) => (
  <Box
    sx={{
      ...(width ? { width, flex: "none" } : { flex: 1, minWidth: 0 }),
      ...(right && { textAlign: "right", fontVariantNumeric: "tabular-nums" }),
      overflow: "hidden",
      textOverflow: "ellipsis",
      whiteSpace: "nowrap",
    }}
  >
    {children}
  </Box>
);

/** Visits to come first, then those that were. */
export function Visits({ customer, onMore }: { customer: Customer; onMore: () => void }) {
  const { coming, past, pastCount } = customer.visits;
  const mayBook = useOffice().person.permissions.includes("board.change");
  const several = customer.sites.length > 1;
  const lines = (visits: typeof coming) =>
    visits.map((v) => (
      <Line key={v.id} href={`/board?date=${v.date}&visit=${v.id}`}>
        <Cell width={130}>{dayOf(v.date, customer)}</Cell>
        <Box sx={{ flex: "none" }}>
          <Code code={v.code} colour={hues[v.hue]!} />
        </Box>
        <Cell>
          {v.service}
          {several && <span style={{ color: ink.ash }}> · {v.site.split(",")[0]}</span>}
        </Cell>
        <Cell width={140}>
          {v.technicians ?? (v.state === "promised" ? <span style={{ color: ink.ember }}>no technician</span> : "")}
        </Cell>
        <Cell width={104}>
          <VisitState state={v.state} />
        </Cell>
        <Cell width={84} right>
          {moneyWords(v.totalMinor, customer.currency)}
        </Cell>
      </Line>
    ));
  return (
    <>
      <SheetSection title={coming.length ? "Coming" : "Nothing is coming"}>
        {lines(coming)}
        {mayBook &&
          customer.sites
            .filter((site) => site.addressId !== null)
            .map((site) => (
              <LinkBox
                key={site.id}
                href={`/why-not?address=${encodeURIComponent(site.addressId!)}&customer=${customer.id}`}
                sx={{ color: ink.lake, fontSize: 14.5, display: "inline-block", py: 1, mr: 4 }}
              >
                {several ? `Book at ${site.name || site.line.split(",")[0]}` : "Book a visit"}
              </LinkBox>
            ))}
      </SheetSection>
      {pastCount > 0 && (
        <SheetSection title="Earlier">
          {lines(past)}
          <Earlier left={pastCount - past.length} onMore={onMore} />
        </SheetSection>
      )}
    </>
  );
}

/** Its rule and its dates come when one is agreed. */
const NewRepeat = dynamic(() => import("./new-repeat").then((m) => m.NewRepeat));

export function Repeats({ customer }: { customer: Customer }) {
  const [agreeing, setAgreeing] = useState(false);
  const mayAgree = useOffice().person.permissions.includes("board.change") && customer.sites.length > 0;
  if (customer.repeats.length === 0 && !mayAgree) return null;
  return (
    <SheetSection title="Repeats">
      {customer.repeats.map((r) => (
        <Line key={r.id} href={`/repeats?open=${r.id}`}>
          <Cell>
            {r.service}, {r.words}
          </Cell>
          <Cell width={200}>{r.site.split(",")[0]}</Cell>
          <Cell width={150}>
            {r.state === "active" ? (r.next ? `next ${dayOf(r.next, customer)}` : "nothing ahead") : "ended"}
          </Cell>
        </Line>
      ))}
      {mayAgree && (
        <Button size="small" onClick={() => setAgreeing(true)}>
          Agree a repeat…
        </Button>
      )}
      {agreeing && <NewRepeat customer={customer} onClose={() => setAgreeing(false)} />}
    </SheetSection>
  );
}

/** What waits stands in Incoming; what was booked on the board. */
const quoteHref = (quote: Customer["quotes"][number]): string =>
  quote.isOpen
    ? `/incoming?open=${encodeURIComponent(`quote ${quote.id}`)}`
    : quote.visitId
      ? `/board?date=${quote.visitDate}&visit=${quote.visitId}`
      : "/incoming";

export const Quotes = ({ customer }: { customer: Customer }) =>
  customer.quotes.length > 0 && (
    <SheetSection title="Quotes">
      {customer.quotes.map((q) => (
        <Line key={q.id} href={quoteHref(q)}>
          <Cell width={130}>{dayOf(q.made, customer)}</Cell>
          <Cell>{q.line}</Cell>
          <Cell width={150}>{q.state}</Cell>
          <Cell width={84} right>
            {moneyWords(q.total_minor, customer.currency)}
          </Cell>
        </Line>
      ))}
    </SheetSection>
  );

export function Invoices({ customer }: { customer: Customer }) {
  if (!customer.invoices?.length) return null;
  const open = customer.openMinor ?? 0;
  return (
    <SheetSection title={open > 0 ? `Invoices: ${moneyWords(open, customer.currency)} open` : "Invoices: nothing open"}>
      {customer.invoices.map((i) => (
        <Line key={i.id} href={`/money?id=${i.id}`}>
          <Cell width={130}>{dayOf(i.issued, customer)}</Cell>
          <Cell>
            Invoice {i.number}
            {i.billName && <span style={{ color: ink.ash }}> · to {i.billName}</span>}
          </Cell>
          <Cell width={150}>
            <span style={i.state === "overdue" ? { color: ink.ember } : undefined}>{i.state}</span>
            {i.openMinor > 0 && `, due ${dayOf(i.dueDate, customer)}`}
          </Cell>
          <Cell width={84} right>
            {moneyWords(i.totalMinor, customer.currency)}
          </Cell>
        </Line>
      ))}
    </SheetSection>
  );
}

export function Cards({ customer }: { customer: Customer }) {
  const mayChange = useOffice().person.permissions.includes("money.change");
  const remove = useChange("forget-card");
  return (
    customer.cards.length > 0 && (
      <SheetSection title="Cards on file">
        {customer.cards.map((card) => (
          <Box key={card.id} sx={{ display: "flex", alignItems: "center", borderTop: `1px solid ${ink.line}`, py: 1 }}>
            <Box sx={{ flex: 1, fontSize: 14.5 }}>{card.label}, kept with the card service</Box>
            {mayChange && (
              <Button size="small" disabled={remove.busy} onClick={() => void remove.send({ cardId: card.id })}>
                Remove
              </Button>
            )}
          </Box>
        ))}
      </SheetSection>
    )
  );
}

/** What they said yes and no to, in the words they read. */
export function Agreed({ customer: c }: { customer: Customer }) {
  const seesRecords = useOffice().person.permissions.includes("audit.see");
  return (
    <SheetSection title="What they agreed to">
      <Fact name="Reminders">{c.reminders ? "agreed to" : "not wanted"}</Fact>
      <Fact name="Offers">{c.offers ? "agreed to" : "not agreed to"}</Fact>
      <ByChannel customer={c} />
      {c.consents.map((consent) => (
        <Fact key={consent.id} name={dayOf(localDate(Math.floor(consent.at / 60_000), c.timeZone), c)}>
          {consent.given ? "✓" : "✕"} “{consent.words}”
        </Fact>
      ))}
      {seesRecords && (
        <LinkBox
          href={`/records?by=anybody&customer=${c.id}`}
          sx={{ color: ink.lake, fontSize: 14, display: "inline-block", mt: 2 }}
        >
          Who did what with this customer
        </LinkBox>
      )}
    </SheetSection>
  );
}

/** By which channels they want what they have agreed to, what they have ended, and in which language we write. */
function ByChannel({ customer: c }: { customer: Customer }) {
  const { permissions } = useOffice().person;
  const withheld = useChange("save-withheld");
  const stop = useChange("save-stop");
  const language = useChange("save-language");
  const mayChange = permissions.includes("customers.change");
  const wants = (purpose: "reminders" | "offers", channel: Channel) =>
    !c.withheld.some((one) => one.purpose === purpose && one.channel === channel);
  return (
    <>
      {(["reminders", "offers"] as const)
        .filter((purpose) => c[purpose])
        .map((purpose) => (
          <Fact key={purpose} name={`${purpose === "reminders" ? "Reminders" : "Offers"} by`}>
            {channels.map((channel) => (
              <FormControlLabel
                key={channel}
                control={
                  <Checkbox
                    size="small"
                    checked={wants(purpose, channel)}
                    disabled={!mayChange || withheld.busy}
                    onChange={(e) =>
                      void withheld.send({ customerId: c.id, purpose, channel, wanted: e.target.checked })
                    }
                  />
                }
                label={channelNames[channel]}
              />
            ))}
          </Fact>
        ))}
      {c.stopped.map(({ channel, how }) => (
        <Fact key={channel} name="Ended">
          Nothing by {channelNames[channel]}: “{how}”
          {permissions.includes("contacts.see") && (
            <Button
              size="small"
              disabled={stop.busy}
              onClick={() => void stop.send({ customerId: c.id, channel, stopped: false })}
            >
              They want it again
            </Button>
          )}
        </Fact>
      ))}
      <Fact name="Language">
        <Box
          component="select"
          aria-label="Language"
          value={c.language ?? ""}
          disabled={!mayChange || language.busy}
          onChange={(e: { target: { value: string } }) =>
            void language.send({
              customerId: c.id,
              language: (e.target.value || null) as Language | null,
              timeZone: null,
            })
          }
          sx={{ font: "inherit", p: 1 }}
        >
          <option value="">as the business</option>
          {languages.map((one) => (
            <option key={one} value={one}>
              {languageNames[one]}
            </option>
          ))}
        </Box>
      </Fact>
      <Fact name="Time zone">
        <Box
          component="select"
          aria-label="Time zone"
          value={c.ownTimeZone ?? ""}
          disabled={!mayChange || language.busy}
          onChange={(e: { target: { value: string } }) =>
            void language.send({ customerId: c.id, language: c.language, timeZone: e.target.value || null })
          }
          sx={{ font: "inherit", p: 1, maxWidth: 200 }}
        >
          <option value="">as the business</option>
          {Intl.supportedValuesOf("timeZone").map((zone) => (
            <option key={zone}>{zone}</option>
          ))}
        </Box>
      </Fact>
    </>
  );
}

export const Messages = ({ customer, onMore }: { customer: Customer; onMore: () => void }) =>
  customer.messages.length > 0 && (
    <SheetSection title="Messages">
      <WriteTo customer={customer} />
      <MessageList messages={customer.messages} />
      <Earlier left={customer.messageCount - customer.messages.length} onMore={onMore} />
    </SheetSection>
  );

/** The conversation with them. */
function WriteTo({ customer }: { customer: Customer }) {
  const router = useRouter();
  const { send, busy } = useChange("open-thread", {
    then: ({ threadId }) => router.push(`/messages?show=all&open=${threadId}`),
  });
  return (
    <Button size="small" disabled={busy} onClick={() => void send({ customerId: customer.id })}>
      Open the conversation
    </Button>
  );
}

/** The way to what lies further back. */
const Earlier = ({ left, onMore }: { left: number; onMore: () => void }) =>
  left > 0 && (
    <Button size="small" onClick={onMore} sx={{ mt: 1 }}>
      {left === 1 ? "Show the earlier one" : `Show earlier ones (${left})`}
    </Button>
  );

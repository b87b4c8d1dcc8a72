"use client";
import { moneyWords } from "@/core/money/amounts";
import { dateWords, dayWords, windowWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { useLive } from "@/ui/live";
import { LinkBox } from "@/ui/link-box";
import { arch, ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useKeys } from "@/ui/use-keys";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { CustomerField } from "../customer-field";
import { useOffice } from "../office-context";
import { Composer } from "./composer";
import type { Thread } from "./data";
import { EntryLine } from "./entry-line";

const everyMs = 8_000;

/** One conversation: what was said and what happened, the composer under it, the promise beside it. */
export function ThreadScreen({ id, onGone }: { id: number; onGone: (id: number) => void }) {
  const [more, setMore] = useState(0);
  const { data, problem } = useLive("thread", { threadId: id, more }, everyMs);
  if (problem) return <Alert severity="warning">{problem.sentence}</Alert>;
  if (!data) return <Skeleton variant="rounded" sx={{ flex: 1, m: 6 }} height={320} />;
  return (
    <>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <Head thread={data} />
        <Entries entries={data.entries} thread={data} onMore={data.hasMore ? () => setMore(more + 1) : null} />
        {data.who.isKnown ? null : <Unknown thread={data} onGone={onGone} />}
        <Composer key={id} thread={data} />
      </Box>
      <Beside thread={data} />
    </>
  );
}

function Entries({
  entries,
  thread,
  onMore,
}: {
  entries: Thread["entries"];
  thread: Thread;
  onMore: (() => void) | null;
}) {
  const log = useRef<HTMLDivElement>(null);
  const last = entries.at(-1)?.key;
  useEffect(() => {
    if (log.current) log.current.scrollTop = log.current.scrollHeight;
  }, [last]);
  const { send } = useChange("read-thread", { quiet: true });
  useEffect(() => {
    if (thread.unread) void send({ threadId: thread.id });
  }, [thread.unread, thread.id, send]);
  return (
    <Box ref={log} role="log" aria-label="Conversation" tabIndex={0} sx={{ flex: 1, overflowY: "auto", px: 6, py: 3 }}>
      {onMore && (
        <Button size="small" onClick={onMore}>
          Show what was before
        </Button>
      )}
      {entries.map((entry) => (
        <EntryLine key={entry.key} entry={entry} threadId={thread.id} />
      ))}
      {entries.length === 0 && <Box sx={{ color: ink.ash }}>Nothing has been said yet.</Box>}
    </Box>
  );
}

/** Who it is, and what is to be done with it. E: done; A: take it on; C: call; B: book a visit. */
function Head({ thread }: { thread: Thread }) {
  const router = useRouter();
  const telephone = `tel:${thread.who.phone.replace(/[^\d+]/g, "")}`;
  const book = thread.beside?.addressId
    ? `/why-not?address=${encodeURIComponent(thread.beside.addressId)}&customer=${thread.who.customerId}`
    : null;
  const settle = useChange("settle-thread");
  const take = useChange("take-thread");
  const waits = thread.waitingSince !== null;
  const isMine = thread.handlerId !== null && thread.handlerId === thread.me;
  useKeys({
    e: () => void settle.send({ threadId: thread.id, done: waits }),
    a: () => void take.send({ threadId: thread.id, personId: isMine ? null : thread.me }),
    ...(thread.who.phone && { c: () => window.location.assign(telephone) }),
    ...(book && { b: () => router.push(book) }),
  });
  return (
    <Box
      sx={{
        px: 6,
        py: 3,
        display: "flex",
        gap: 3,
        alignItems: "center",
        flexWrap: "wrap",
        borderBottom: `1px solid ${ink.line}`,
      }}
    >
      <Box sx={{ flex: 1, minWidth: 200 }}>
        <Typography variant="h2" component="h2">
          {thread.who.customerId !== null ? (
            <LinkBox href={`/customers/${thread.who.customerId}`} sx={{ color: "inherit" }}>
              {thread.who.name}
            </LinkBox>
          ) : (
            thread.who.name
          )}
        </Typography>
        <Box sx={{ color: ink.ash, fontSize: 14 }}>
          {[thread.who.phone, thread.who.mail].filter(Boolean).join(" · ")}
          {thread.stopped.map(({ channel }) => (
            <Box component="span" key={channel} sx={{ color: ink.ember }}>
              {" "}
              · they have ended {channel === "text" ? "texts" : channel === "mail" ? "emails" : "calls"}
            </Box>
          ))}
        </Box>
      </Box>
      <TextField
        select
        size="small"
        label="Who answers"
        value={thread.handlerId ?? 0}
        onChange={(e) => void take.send({ threadId: thread.id, personId: Number(e.target.value) || null })}
        sx={{ width: 170 }}
      >
        <MenuItem value={0}>Nobody yet</MenuItem>
        {thread.handlers.map((one) => (
          <MenuItem key={one.id} value={one.id}>
            {one.name}
          </MenuItem>
        ))}
      </TextField>
      {thread.who.phone && (
        <Button href={telephone} title="Call (C)">
          Call
        </Button>
      )}
      {book && (
        <Button href={book} title="Book a visit (B)">
          Book
        </Button>
      )}
      <PutOff thread={thread} />
      <Button
        variant={waits ? "contained" : "outlined"}
        disabled={settle.busy}
        onClick={() => void settle.send({ threadId: thread.id, done: waits })}
      >
        {waits ? "Done" : "Waits again"}
      </Button>
    </Box>
  );
}

const hourMs = 3_600_000;

/** It comes up again later. */
function PutOff({ thread }: { thread: Thread }) {
  const [at, setAt] = useState<HTMLElement | null>(null);
  const { send, busy } = useChange("snooze-thread");
  const { now } = thread;
  const put = (until: number | null) => {
    setAt(null);
    void send({ threadId: thread.id, until });
  };
  if (thread.snoozedUntil && thread.snoozedUntil > now)
    return (
      <Button disabled={busy} onClick={() => put(null)}>
        Put off: bring it back
      </Button>
    );
  return (
    <>
      <Button aria-haspopup="menu" disabled={busy} onClick={(e) => setAt(e.currentTarget)}>
        Put off
      </Button>
      <Menu open={at !== null} anchorEl={at} onClose={() => setAt(null)}>
        <MenuItem onClick={() => put(now + hourMs)}>for an hour</MenuItem>
        <MenuItem onClick={() => put(now + 4 * hourMs)}>for four hours</MenuItem>
        <MenuItem onClick={() => put(now + 24 * hourMs)}>until tomorrow</MenuItem>
        <MenuItem onClick={() => put(now + 7 * 24 * hourMs)}>for a week</MenuItem>
      </Menu>
    </>
  );
}

/** Nobody knows who it is: they are found among the customers, or become one. */
function Unknown({ thread, onGone }: { thread: Thread; onGone: (id: number) => void }) {
  const { openNewCustomer, person } = useOffice();
  const { send, busy } = useChange("match-thread", { then: ({ threadId }) => onGone(threadId) });
  if (!person.permissions.includes("customers.change")) return null;
  return (
    <Box sx={{ px: 6, py: 2, bgcolor: ink.plaster, display: "flex", gap: 3, alignItems: "center", flexWrap: "wrap" }}>
      <Box sx={{ flex: 1, minWidth: 160 }}>Nobody known. Is it one of your customers?</Box>
      <Box sx={{ width: 280 }}>
        <CustomerField
          label="This is"
          customer={null}
          onCustomer={(customer) => customer && void send({ threadId: thread.id, customerId: customer.id })}
        />
      </Box>
      <Button disabled={busy} onClick={openNewCustomer}>
        New customer
      </Button>
    </Box>
  );
}

/** The promise, and how things are with them. */
function Beside({ thread }: { thread: Thread }) {
  const { beside } = thread;
  const { send, busy } = useChange("write-by-hand");
  return (
    <Box
      component="aside"
      aria-label="Beside the conversation"
      sx={{
        width: 270,
        flex: "none",
        borderLeft: `1px solid ${ink.line}`,
        p: 4,
        overflowY: "auto",
        display: { xs: "none", lg: "block" },
      }}
    >
      {beside === null && <Box sx={{ color: ink.ash }}>No customer yet.</Box>}
      {beside?.next && (
        <>
          <Box
            sx={{
              borderRadius: arch,
              border: `1px solid ${ink.line}`,
              textAlign: "center",
              pt: 8,
              pb: 4,
              px: 4,
              bgcolor: "#fff",
            }}
          >
            <Box className="titles" sx={{ fontSize: 26, fontWeight: 700 }}>
              {windowWords(beside.next.from, beside.next.to)}
            </Box>
            <Box>{dayWords(beside.next.date)}</Box>
            <Box sx={{ color: ink.ash, fontSize: 14 }}>
              {[beside.next.technician ?? "nobody yet", beside.next.title].join(", ")}
            </Box>
            <Box sx={{ fontSize: 14, mt: 1, color: beside.next.isConfirmed ? ink.moss : ink.ember }}>
              {beside.next.isConfirmed ? "✓ confirmed" : "not confirmed"}
            </Box>
          </Box>
          <LinkBox
            href={`/board?date=${beside.next.date}&visit=${beside.next.visitId}`}
            sx={{ color: ink.lake, display: "block", mt: 2 }}
          >
            Show it on the board
          </LinkBox>
          {thread.channels.includes("text") && (
            <Button
              size="small"
              variant="outlined"
              disabled={busy}
              sx={{ mt: 2 }}
              onClick={() =>
                void send({
                  threadId: thread.id,
                  channel: "text",
                  subject: "",
                  body: "Choose another time here: {{my_link}}",
                  photos: [],
                  key: `offers ${beside.next!.visitId} ${thread.entries.length}`,
                })
              }
            >
              Send all offers as a link
            </Button>
          )}
          <Line>
            {beside.next.line}
            {beside.next.zone && <Box sx={{ color: ink.ash }}>{beside.next.zone}</Box>}
          </Line>
        </>
      )}
      {beside && (
        <>
          <Line>
            {counted(beside.visits, "visit")} since {beside.since.slice(0, 4)}
          </Line>
          <Line>{beside.owesMinor > 0 ? `Owes ${moneyWords(beside.owesMinor, thread.currency)}` : "Owes nothing"}</Line>
          {beside.comesAgain && <Line>Comes back on {dateWords(beside.comesAgain)}</Line>}
          {beside.inside && (
            <Line>
              <b>Inside</b>
              <Box sx={{ color: ink.ash }}>{beside.inside}</Box>
            </Line>
          )}
        </>
      )}
    </Box>
  );
}

const Line = ({ children }: { children: ReactNode }) => (
  <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 2, mt: 2 }}>{children}</Box>
);

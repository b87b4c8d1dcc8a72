"use client";
import type { ViewOutput } from "@/api/client";
import { sinceWords } from "@/core/time/since-words";
import { counted } from "@/core/words";
import { useLive, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useKeys } from "@/ui/use-keys";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useRouter } from "next/navigation";
import { useDeferredValue, useState } from "react";
import { threadAddress, type ThreadShow } from "./data";
import { ThreadScreen } from "./thread-screen";

type Row = ViewOutput<"threads">["rows"][number];

const showNames: Record<ThreadShow, string> = {
  waiting: "Waiting for an answer",
  mine: "Mine",
  unknown: "Nobody known",
  snoozed: "Put off",
  all: "All",
};
/** How often it is looked whether something has come in. */
const everyMs = 10_000;
const moreAtOnce = 60;

/** Conversations at the left, the one that is open beside them. J and K go from one to the next. */
export function Conversations({ show, open }: { show: ThreadShow; open: number | null }) {
  const router = useRouter();
  const [search, setSearch] = useState("");
  const [more, setMore] = useState(0);
  const asked = useDeferredValue(search);
  const first = useShown("threads", { show, search: "", more: 0 }, everyMs);
  const found = useLive("threads", asked || more ? { show, search: asked, more } : null, everyMs).data;
  const { rows, hasMore, waiting, oldest, now } = found ?? first;
  const go = (id: number | null, to = show) => router.push(threadAddress(to, id), { scroll: false });
  const step = (by: 1 | -1) => {
    const at = rows.findIndex(({ id }) => id === open);
    const next = rows[Math.min(rows.length - 1, Math.max(0, at + by))];
    if (next) go(next.id);
  };
  useKeys({ j: () => step(1), k: () => step(-1) });
  return (
    <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
      <Box
        sx={{
          width: 320,
          flex: "none",
          bgcolor: ink.plaster,
          borderRight: `1px solid ${ink.line}`,
          display: "flex",
          flexDirection: "column",
          minHeight: 0,
        }}
      >
        <Box sx={{ p: 3, display: "grid", gap: 2 }}>
          <Box role="status" sx={{ color: ink.ash, fontSize: 14 }}>
            {waiting === 0
              ? "Nobody waits for an answer"
              : `${counted(waiting, "conversation")} ${waiting === 1 ? "waits" : "wait"}, the oldest ${sinceWords(oldest!, now)}`}
          </Box>
          <TextField
            select
            size="small"
            label="Show"
            value={show}
            onChange={(e) => go(null, e.target.value as ThreadShow)}
          >
            {Object.entries(showNames).map(([value, name]) => (
              <MenuItem key={value} value={value}>
                {name}
              </MenuItem>
            ))}
          </TextField>
          <TextField
            size="small"
            label="Search conversations"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
          />
        </Box>
        <Box component="nav" aria-label="Conversations" sx={{ overflowY: "auto", flex: 1 }}>
          {rows.map((row) => (
            <ThreadRow key={row.id} row={row} now={now} open={row.id === open} onOpen={() => go(row.id)} />
          ))}
          {rows.length === 0 && (
            <Box sx={{ p: 4, color: ink.ash }}>
              {show === "waiting"
                ? "All is answered. What customers write by text or email comes up here."
                : "There is none."}
              {show !== "all" && (
                <Button size="small" onClick={() => go(null, "all")} sx={{ display: "block", mt: 2 }}>
                  Show all
                </Button>
              )}
            </Box>
          )}
          {hasMore && (
            <Button fullWidth onClick={() => setMore(more + moreAtOnce)}>
              Show more
            </Button>
          )}
        </Box>
      </Box>
      {open === null ? (
        <Box sx={{ p: 8, color: ink.ash }}>
          Choose a conversation. <kbd>J</kbd> and <kbd>K</kbd> go from one to the next.
        </Box>
      ) : (
        <ThreadScreen key={open} id={open} onGone={(id) => go(id)} />
      )}
    </Box>
  );
}

function ThreadRow({ row, now, open, onOpen }: { row: Row; now: number; open: boolean; onOpen: () => void }) {
  const isUnread = row.unread === 1;
  const waits = row.waitingSince !== null;
  return (
    <ButtonBase
      onClick={onOpen}
      aria-current={open ? "true" : undefined}
      sx={{
        display: "block",
        width: "100%",
        textAlign: "left",
        px: 4,
        py: 2.5,
        borderTop: `1px solid ${ink.line}`,
        bgcolor: open ? "#fff" : "transparent",
        font: "inherit",
      }}
    >
      <Box sx={{ display: "flex", gap: 2, alignItems: "baseline" }}>
        <Box
          sx={{
            flex: 1,
            fontWeight: isUnread || waits ? 700 : 400,
            overflow: "hidden",
            textOverflow: "ellipsis",
            whiteSpace: "nowrap",
          }}
        >
          {isUnread && (
            <Box component="span" aria-label="unread" sx={{ color: ink.ember }}>
              ●{" "}
            </Box>
          )}
          {row.customerId === null && row.name.startsWith("+") ? `Nobody known, ${row.name}` : row.name}
        </Box>
        <Box sx={{ fontSize: 13, color: waits ? ink.ember : ink.ash, whiteSpace: "nowrap" }}>
          {sinceWords(row.waitingSince ?? row.at, now)}
        </Box>
      </Box>
      <Box sx={{ fontSize: 14, color: ink.ash, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}>
        {row.by === "us" && "You: "}
        {row.words || "Nothing written yet"}
      </Box>
      {(row.handler || row.snoozedUntil) && (
        <Box sx={{ fontSize: 13, color: ink.ash }}>
          {row.handler && `${row.handler} answers`}
          {row.snoozedUntil && row.snoozedUntil > now && " · put off"}
        </Box>
      )}
    </ButtonBase>
  );
}

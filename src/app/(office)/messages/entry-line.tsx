"use client";
import { channelNames } from "@/core/messages/purposes";
import { messageStates } from "@/core/messages/states";
import { counted } from "@/core/words";
import { ink } from "@/ui/palette";
import { Photos } from "@/ui/photos";
import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import type { ReactNode } from "react";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import { useSnackbar } from "notistack";
import type { Entry } from "./data";

/** One entry of a conversation. */
export function EntryLine({ entry, threadId }: { entry: Entry; threadId: number }) {
  const { when } = entry;
  switch (entry.kind) {
    case "happened":
      return (
        <Box sx={{ display: "flex", alignItems: "center", gap: 2, my: 2, color: ink.ash, fontSize: 13.5 }}>
          <Rule />
          {when} · {entry.words}
          <Rule />
        </Box>
      );
    case "note":
      return (
        <Box
          role="note"
          sx={{
            my: 2,
            mx: "auto",
            maxWidth: "85%",
            bgcolor: "#FBF3DF",
            border: `1px solid ${ink.honey}`,
            borderRadius: "6px",
            p: 2.5,
            fontSize: 14.5,
          }}
        >
          <Box sx={{ whiteSpace: "pre-wrap" }}>{entry.words}</Box>
          <Small>
            note by {entry.writtenBy} · {when}
          </Small>
        </Box>
      );
    case "theirs":
      return (
        <Bubble side="left">
          {entry.subject && <b>{entry.subject}</b>}
          <Box sx={{ whiteSpace: "pre-wrap", overflowWrap: "anywhere" }}>{entry.words}</Box>
          <Photos tokens={entry.photos} />
          {entry.recording && (
            <Box
              component="audio"
              controls
              preload="none"
              src={`/api/recordings/${entry.recording}`}
              sx={{ display: "block", mt: 1, maxWidth: "100%" }}
              aria-label="Recording"
            />
          )}
          {entry.claims && (
            <Box sx={{ mt: 1, fontSize: 14 }}>
              It answers a message to <Link href={`/customers/${entry.claims.customerId}`}>{entry.claims.name}</Link>,
              and comes from an address that is not theirs.
            </Box>
          )}
          {entry.understood.includes("says yes, and more") && (
            <TakeAsYes threadId={threadId} replyId={Number(entry.key.slice(1))} />
          )}
          <Small>
            {[
              entry.channel === "voice"
                ? entry.recording || !entry.words
                  ? `call that nobody took${entry.seconds ? `, ${entry.seconds} s` : ""}`
                  : "phone call"
                : entry.channel === "mail"
                  ? "email"
                  : entry.channel,
              when,
              entry.understood.length > 0 && `read as: ${entry.understood.join(", and ")}`,
            ]
              .filter(Boolean)
              .join(" · ")}
          </Small>
        </Bubble>
      );
    case "ours":
      return (
        <Bubble side="right">
          {entry.subject && <b>{entry.subject}</b>}
          <Box
            sx={{
              whiteSpace: "pre-wrap",
              overflowWrap: "anywhere",
              ...(entry.writtenBy === null && { maxHeight: 160, overflowY: "auto" }),
            }}
            {...(entry.writtenBy === null && { tabIndex: 0 })}
          >
            {entry.words.replace(/\{\{\w+\}\}/g, "[their link]").trim()}
          </Box>
          <Photos tokens={entry.photos} />
          {entry.state === "waiting" && <SendNow threadId={threadId} messageId={Number(entry.key.slice(1))} />}
          <Small>
            {[
              channelNames[entry.channel],
              <Box
                key="state"
                component="span"
                sx={{ color: messageStates.allows("lost", entry.state) ? ink.ember : "inherit" }}
              >
                {entry.state === "dropped" ? "not sent" : entry.state}
                {entry.problem && `: ${entry.problem}`}
              </Box>,
              entry.parts > 0 && counted(entry.parts, "part"),
              entry.writtenBy ?? "by itself",
              when,
            ]
              .filter(Boolean)
              .map((part, i) => (
                <span key={i}>
                  {i > 0 && " · "}
                  {part}
                </span>
              ))}
          </Small>
        </Bubble>
      );
  }
}

const Rule = () => <Box sx={{ flex: 1, borderTop: `1px solid ${ink.line}` }} />;
const Small = ({ children }: { children: ReactNode }) => (
  <Box sx={{ fontSize: 12.5, color: ink.ash, mt: 1 }}>{children}</Box>
);

const Bubble = ({ side, children }: { side: "left" | "right"; children: ReactNode }) => (
  <Box
    sx={{
      my: 2,
      ml: side === "right" ? "auto" : 0,
      maxWidth: "72%",
      p: 3,
      fontSize: 15,
      border: `1px solid ${ink.line}`,
      borderRadius: side === "right" ? "14px 14px 2px 14px" : "14px 14px 14px 2px",
      bgcolor: side === "right" ? "#E6EBE5" : "#fff",
      width: "fit-content",
    }}
  >
    {children}
  </Box>
);

/** A yes with something more beside it: a person says whether it confirms. */
function TakeAsYes({ threadId, replyId }: { threadId: number; replyId: number }) {
  const { send, busy } = useChange("take-as-yes");
  const { enqueueSnackbar } = useSnackbar();
  const take = async () => {
    const taken = await send({ threadId, replyId });
    if (taken) enqueueSnackbar("Confirmed, and they are told", { variant: "success" });
  };
  return (
    <Button size="small" variant="outlined" disabled={busy} onClick={() => void take()} sx={{ mt: 1 }}>
      Take it as a yes
    </Button>
  );
}

/** What waits for the allowed hours can go at once. */
function SendNow({ threadId, messageId }: { threadId: number; messageId: number }) {
  const { send, busy } = useChange("send-now");
  return (
    <Button
      size="small"
      variant="outlined"
      disabled={busy}
      onClick={() => void send({ threadId, messageId })}
      sx={{ mt: 1 }}
    >
      Send now
    </Button>
  );
}

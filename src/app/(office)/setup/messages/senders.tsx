"use client";
import type { ViewOutput } from "@/api/client";
import { channelNames } from "@/core/messages/purposes";
import { useShown } from "@/ui/live";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";

type Sender = ViewOutput<"message-setup">["senders"][number];

/** From which address, number and name each channel sends; a test of each, and what is missing. */
export function Senders() {
  const { senders } = useShown("message-setup", {});
  return (
    <Box sx={{ display: "grid", gap: 8, maxWidth: 720 }}>
      {senders.map((sender) => (
        <SenderForm key={sender.channel} sender={sender} />
      ))}
    </Box>
  );
}

const titles = { mail: "Email", text: "Texts", voice: "Phone calls" } as const;
const pages = { mail: "/standins/mail", text: "/standins/text", voice: "/standins/calls" } as const;

function SenderForm({ sender }: { sender: Sender }) {
  const { channel } = sender;
  const [name, setName] = useState(sender.name);
  const [address, setAddress] = useState(sender.address);
  const { send, busy, wrong } = useChange("save-sender", { compares: true });
  return (
    <Box component="section" aria-label={titles[channel]}>
      <Typography variant="h2">{titles[channel]}</Typography>
      <Box sx={{ color: sender.missing.length ? ink.ember : ink.moss, my: 2 }}>
        {sender.missing.length === 0
          ? sender.isStandin
            ? "Stays in the house: the demo shows it on a page of its own"
            : "Connected"
          : sender.missing.map((words) => <Box key={words}>{words}</Box>)}
        {sender.isStandin && (
          <LinkBox href={pages[channel]} sx={{ color: ink.lake, display: "block" }}>
            Look at what was sent
          </LinkBox>
        )}
      </Box>
      <Box sx={{ display: "flex", gap: 3, flexWrap: "wrap", alignItems: "flex-start" }}>
        <TextField
          label={channel === "mail" ? "Name" : "Name, where networks show one"}
          value={name}
          onChange={(e) => setName(e.target.value)}
          sx={{ width: 240 }}
        />
        <TextField
          label={channel === "mail" ? "Address" : "Number"}
          value={address}
          onChange={(e) => setAddress(e.target.value)}
          error={!!wrong("/address")}
          helperText={wrong("/address")}
          sx={{ width: 240 }}
        />
        <Button
          variant="contained"
          disabled={busy || (name === sender.name && address === sender.address)}
          onClick={() => void send({ channel, name, address })}
        >
          Save
        </Button>
      </Box>
      {channel === "mail" && (
        <Box component="details" sx={{ mt: 2, fontSize: 14.5 }}>
          <summary>Records that your mail domain needs</summary>
          <Box component="ul" sx={{ color: ink.ash }}>
            <li>SPF: a TXT record on {address.split("@")[1] || "your domain"} that names your mail server.</li>
            <li>DKIM: the key that your mail server signs with.</li>
            <li>
              DMARC: a TXT record on _dmarc.{address.split("@")[1] || "your domain"}, to begin with “v=DMARC1; p=none”.
            </li>
          </Box>
          Without them many mailboxes put your mail aside. Send yourself a test and look at its headers.
        </Box>
      )}
      <Test sender={sender} />
    </Box>
  );
}

function Test({ sender }: { sender: Sender }) {
  const [to, setTo] = useState("");
  const { send, busy, wrong } = useChange("send-test");
  const words = {
    mail: "A test of {{business}}. If you read this, email works.",
    text: "{{business}}: a test. If you read this, texts work.",
    voice: "This is a test of {{business}}. If you hear this, calls work.",
  }[sender.channel];
  const said = sender.lastTest;
  return (
    <Box sx={{ display: "flex", gap: 2, mt: 3, alignItems: "flex-start" }}>
      <TextField
        size="small"
        label={sender.channel === "mail" ? "Test to this email" : "Test to this phone"}
        value={to}
        onChange={(e) => setTo(e.target.value)}
        sx={{ width: 240 }}
        error={!!(wrong("/to") ?? wrong("/channel"))}
        helperText={
          wrong("/to") ??
          wrong("/channel") ??
          (said ? `The last test: ${said.state}${said.problem ? `, ${said.problem}` : ""}` : undefined)
        }
      />
      <Button
        variant="outlined"
        sx={{ whiteSpace: "nowrap", flex: "none" }}
        disabled={busy || !to.trim() || !sender.isOpen}
        aria-label={`Test ${channelNames[sender.channel]}`}
        onClick={() =>
          void send({
            occasion: "booked",
            channel: sender.channel,
            language: "en",
            subject: "A test",
            body: words,
            visitId: null,
            to,
          })
        }
      >
        Send a test
      </Button>
    </Box>
  );
}

"use client";
import { post } from "@/api/client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useState } from "react";

interface Conversation {
  number: string;
  texts: { direction: string; body: string; at: number }[];
}

export function Phone({ conversations }: { conversations: Conversation[] }) {
  const router = useRouter();
  const [number, setNumber] = useState(conversations[0]?.number ?? "");
  const [text, setText] = useState("");
  const open = conversations.find((c) => c.number === number);
  const send = async () => {
    const result = await post("/standins/text/answer", { sender: number, body: text });
    if (!result.ok) return;
    setText("");
    router.refresh();
  };
  return (
    <Box component="main" sx={{ display: "flex", height: "100dvh" }}>
      <Box
        component="nav"
        aria-label="Phones"
        sx={{ width: 260, overflowY: "auto", borderRight: `1px solid ${ink.line}`, flex: "none" }}
      >
        <Typography variant="h2" component="h1" sx={{ p: 4 }}>
          Test phone: texts sent
        </Typography>
        {conversations.map((c) => (
          <Box
            key={c.number}
            component="button"
            onClick={() => setNumber(c.number)}
            sx={{
              display: "block",
              width: "100%",
              textAlign: "left",
              font: "inherit",
              px: 4,
              py: 2,
              border: 0,
              borderTop: `1px solid ${ink.line}`,
              bgcolor: c.number === number ? ink.plaster : "transparent",
              cursor: "pointer",
            }}
          >
            {c.number}
            <Box
              sx={{ fontSize: 13, color: ink.ash, whiteSpace: "nowrap", overflow: "hidden", textOverflow: "ellipsis" }}
            >
              {c.texts.at(-1)?.body}
            </Box>
          </Box>
        ))}
      </Box>
      <Box sx={{ flex: 1, p: 6, display: "flex", flexDirection: "column", maxWidth: 560 }}>
        {!open && <Typography>No text has been sent yet.</Typography>}
        <Box sx={{ flex: 1, overflowY: "auto" }}>
          {open?.texts.map((t, i) => (
            <Box
              key={i}
              sx={{
                my: 2,
                p: 3,
                maxWidth: "85%",
                overflowWrap: "anywhere",
                ml: t.direction === "from phone" ? "auto" : 0,
                border: `1px solid ${ink.line}`,
                borderRadius: "6px",
                bgcolor: t.direction === "from phone" ? ink.plaster : "#fff",
              }}
            >
              {t.body}
            </Box>
          ))}
        </Box>
        {open && (
          <Box
            component="form"
            onSubmit={(e) => {
              e.preventDefault();
              void send();
            }}
            sx={{ display: "flex", gap: 2 }}
          >
            <TextField label="Answer" value={text} onChange={(e) => setText(e.target.value)} />
            <Button type="submit" variant="contained" disabled={!text.trim()}>
              Send
            </Button>
          </Box>
        )}
      </Box>
    </Box>
  );
}

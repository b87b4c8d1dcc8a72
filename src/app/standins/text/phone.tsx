"use client";
import { post } from "@/api/client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import type { TextWay } from "@/gateways/text-standin";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useState } from "react";

interface Conversation {
  number: string;
  texts: { direction: string; body: string; at: number }[];
}

const ways: Record<TextWay, string> = {
  delivers: "shows the next texts",
  fails: "lets the next texts fail",
  holds: "holds the next texts back",
  loses: "loses the next texts",
};

export function Phone({ conversations, way }: { conversations: Conversation[]; way: TextWay }) {
  const router = useRouter();
  const [number, setNumber] = useState(conversations[0]?.number ?? "");
  const [text, setText] = useState("");
  const [photo, setPhoto] = useState<string | null>(null);
  const [other, setOther] = useState("");
  const open = conversations.find((c) => c.number === number);
  const send = async () => {
    const result = await post("/standins/text/answer", {
      sender: other || number,
      body: text,
      ...(photo && { photo }),
    });
    if (!result.ok) return;
    setText("");
    setPhoto(null);
    if (other) setNumber(other);
    setOther("");
    router.refresh();
  };
  return (
    <Box component="main" sx={{ display: "flex", flexDirection: { xs: "column", md: "row" }, height: "100dvh" }}>
      <Box
        component="nav"
        aria-label="Phones"
        sx={{
          width: { md: 260 },
          height: { xs: "32dvh", md: "auto" },
          overflowY: "auto",
          borderRight: `1px solid ${ink.line}`,
          flex: "none",
        }}
      >
        <Typography variant="h2" component="h1" sx={{ p: 4 }}>
          Test phone: texts sent
        </Typography>
        <Box sx={{ px: 4, pb: 3 }}>
          <TextField
            select
            size="small"
            fullWidth
            label="The phone"
            value={way}
            onChange={(e) => void post("/standins/text/way", { way: e.target.value }).then(() => router.refresh())}
          >
            {Object.entries(ways).map(([value, words]) => (
              <MenuItem key={value} value={value}>
                {words}
              </MenuItem>
            ))}
          </TextField>
        </Box>
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
      <Box sx={{ flex: 1, minHeight: 0, p: { xs: 4, md: 6 }, display: "flex", flexDirection: "column", maxWidth: 640 }}>
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
        {
          <Box
            component="form"
            onSubmit={(e) => {
              e.preventDefault();
              void send();
            }}
            sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}
          >
            <TextField label="Answer" value={text} onChange={(e) => setText(e.target.value)} />
            <TextField label="From another number" value={other} onChange={(e) => setOther(e.target.value)} />
            <Button component="label" variant="outlined">
              {photo ? "Photo ✓" : "Photo"}
              <input
                type="file"
                accept="image/*"
                aria-label="Photo to send"
                hidden
                onChange={async (e) => {
                  const bytes = await e.target.files?.[0]?.arrayBuffer();
                  if (bytes)
                    setPhoto(btoa(Array.from(new Uint8Array(bytes), (byte) => String.fromCharCode(byte)).join("")));
                }}
              />
            </Button>
            <Button type="submit" variant="contained" disabled={(!text.trim() && !photo) || !(other || number)}>
              Send
            </Button>
          </Box>
        }
      </Box>
    </Box>
  );
}

"use client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useId, useRef, useState } from "react";
import { imageAddress, sendImage } from "./images";
import { ink } from "./palette";

/** One picture: shown, chosen anew, or taken away. */
export function ImageField({
  label,
  purpose,
  token,
  onToken,
  round = false,
}: {
  label: string;
  purpose: "mark" | "technician" | "service" | "door";
  token: string | null;
  onToken: (token: string | null) => void;
  round?: boolean;
}) {
  const [busy, setBusy] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const id = useId();
  const take = async (file: File | undefined) => {
    if (!file) return;
    setBusy(true);
    const sent = await sendImage(purpose, file);
    setBusy(false);
    setWrong(sent.ok ? null : sent.problem.sentence);
    if (sent.ok) onToken(sent.value.token);
  };
  return (
    <Box role="group" aria-label={label} sx={{ display: "flex", gap: 4, alignItems: "center" }}>
      <Box
        sx={{
          width: 84,
          height: 84,
          flex: "none",
          display: "grid",
          placeItems: "center",
          overflow: "hidden",
          border: `1px ${token ? "solid" : "dashed"} ${ink.line}`,
          borderRadius: round ? "999px 999px 6px 6px" : "6px",
          bgcolor: "#fff",
          color: ink.ash,
          fontSize: 13,
        }}
      >
        {token ? (
          <Box
            component="img"
            src={imageAddress(token)}
            alt={label}
            sx={{ width: "100%", height: "100%", objectFit: round ? "cover" : "contain" }}
          />
        ) : (
          "none yet"
        )}
      </Box>
      <Box>
        <Box component="label" htmlFor={id} sx={{ fontSize: 14, color: ink.ash, display: "block", mb: 1 }}>
          {label}: PNG or JPEG
        </Box>
        <input
          id={id}
          ref={input}
          type="file"
          accept="image/png,image/jpeg"
          hidden
          onChange={(e) => {
            void take(e.target.files?.[0]);
            e.target.value = "";
          }}
        />
        <Button size="small" variant="outlined" disabled={busy} onClick={() => input.current?.click()}>
          {busy ? "Sending…" : token ? "Choose another" : "Choose"}
        </Button>
        {token && (
          <Button size="small" onClick={() => onToken(null)}>
            Take away
          </Button>
        )}
        {wrong && (
          <Box role="alert" sx={{ color: "error.main", fontSize: 13, mt: 1 }}>
            {wrong}
          </Box>
        )}
      </Box>
    </Box>
  );
}

"use client";
import AddAPhotoOutlined from "@mui/icons-material/AddAPhotoOutlined";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import FormHelperText from "@mui/material/FormHelperText";
import IconButton from "@mui/material/IconButton";
import { useRef, useState } from "react";
import { imageAddress, sendImage } from "./image-field";
import { ink } from "./palette";

/** Photos taken or chosen, each sent at once; what is shown is what was kept. */
export function PhotoField({
  tokens,
  most,
  what,
  onTokens,
}: {
  tokens: string[];
  most: number;
  what: string;
  onTokens: (tokens: string[]) => void;
}) {
  const [sending, setSending] = useState(0);
  const [wrong, setWrong] = useState<string | null>(null);
  const input = useRef<HTMLInputElement>(null);
  const take = async (files: File[]) => {
    const room = files.slice(0, most - tokens.length);
    setWrong(files.length > room.length ? `At most ${most} photos.` : null);
    setSending(room.length);
    const kept = [...tokens];
    for (const file of room) {
      const sent = await sendImage("answer", file);
      if (sent.ok) kept.push(sent.value.token);
      else setWrong(sent.problem.sentence);
    }
    setSending(0);
    onTokens(kept);
  };
  const tile = { width: 96, height: 96, borderRadius: "6px", border: `1px solid ${ink.line}` };
  return (
    <Box>
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap" }}>
        {tokens.map((token, i) => (
          <Box key={token} sx={{ position: "relative" }}>
            <Box
              component="img"
              src={imageAddress(token)}
              alt={`Photo ${i + 1}`}
              sx={{ ...tile, objectFit: "cover", display: "block" }}
            />
            <IconButton
              size="small"
              aria-label={`Take photo ${i + 1} away`}
              onClick={() => onTokens(tokens.filter((t) => t !== token))}
              sx={{ position: "absolute", top: 2, right: 2, bgcolor: "#fff" }}
            >
              <Close fontSize="small" />
            </IconButton>
          </Box>
        ))}
        {tokens.length < most && (
          <ButtonBase
            disabled={sending > 0}
            onClick={() => input.current?.click()}
            aria-label={`Add a photo: ${what}`}
            sx={{
              ...tile,
              borderStyle: "dashed",
              flexDirection: "column",
              gap: 1,
              fontSize: 14,
              color: ink.ash,
              bgcolor: "#fff",
            }}
          >
            <AddAPhotoOutlined />
            {sending ? "Sending…" : "Add"}
          </ButtonBase>
        )}
      </Box>
      <input
        ref={input}
        type="file"
        accept="image/png,image/jpeg"
        multiple
        hidden
        aria-label={what}
        onChange={(e) => {
          void take([...(e.target.files ?? [])]);
          e.target.value = "";
        }}
      />
      {wrong && (
        <FormHelperText error role="alert">
          {wrong}
        </FormHelperText>
      )}
    </Box>
  );
}

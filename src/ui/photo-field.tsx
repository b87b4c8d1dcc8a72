"use client";
import AddAPhotoOutlined from "@mui/icons-material/AddAPhotoOutlined";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import FormHelperText from "@mui/material/FormHelperText";
import IconButton from "@mui/material/IconButton";
import { useRef, useState } from "react";
import { imageAddress } from "./images";
import { ink } from "./palette";
import { useSending, useUploads } from "./uploads";
import { counted } from "@/core/words";

/** Photos taken or chosen, each sent at once; what is shown is what was kept. */
export function PhotoField({
  tokens,
  most,
  what,
  place,
  onTokens,
}: {
  tokens: string[];
  most: number;
  what: string;
  /** Where whoever holds the uploads of a page puts what has arrived; without one it is put here. */
  place?: string;
  onTokens: (tokens: string[]) => void;
}) {
  const latest = useRef(tokens);
  latest.current = tokens;
  const own = useSending((_, token) => onTokens([...latest.current, token]));
  const shared = useUploads();
  const uploads = place === undefined ? own : (shared ?? own);
  const at = place ?? "here";
  const sending = uploads.sending(at);
  const [tooMany, setTooMany] = useState(false);
  const wrong = tooMany ? `At most ${counted(most, "photo")}.` : uploads.wrong(at);
  const input = useRef<HTMLInputElement>(null);
  const take = (files: File[]) => {
    const room = files.slice(0, most - tokens.length - sending);
    setTooMany(files.length > room.length);
    if (room.length) uploads.send(at, room);
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
        {tokens.length + sending < most && (
          <ButtonBase
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
            {sending ? `Sending ${sending}…` : "Add"}
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
          take([...(e.target.files ?? [])]);
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

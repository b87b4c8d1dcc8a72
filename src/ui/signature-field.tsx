"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useEffect, useRef } from "react";
import type SignaturePad from "signature_pad";

export interface Signature {
  name: string;
  /** A PNG as a data: address; empty as long as nothing is drawn. */
  drawing: string;
}

/** A name, and a field to sign in with a finger, a pen or the mouse. */
export function SignatureField({
  signature,
  onSignature,
  label = "Your name",
  problem,
}: {
  signature: Signature;
  onSignature: (signature: Signature) => void;
  label?: string;
  problem?: string | undefined;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  const pad = useRef<SignaturePad>(null);
  const latest = useRef({ signature, onSignature });
  useEffect(() => {
    latest.current = { signature, onSignature };
  });
  useEffect(() => {
    let gone = false;
    void import("signature_pad").then(({ default: Pad }) => {
      const drawn = canvas.current;
      if (gone || !drawn) return;
      drawn.width = drawn.clientWidth;
      drawn.height = drawn.clientHeight;
      pad.current = new Pad(drawn, { penColor: ink.ink, minWidth: 1, maxWidth: 2.5 });
      pad.current.addEventListener("endStroke", () =>
        latest.current.onSignature({ ...latest.current.signature, drawing: pad.current!.toDataURL() }),
      );
    });
    return () => {
      gone = true;
      pad.current?.off();
    };
  }, []);
  const again = () => {
    pad.current?.clear();
    onSignature({ ...signature, drawing: "" });
  };
  return (
    <Box role="group" aria-label="Signature" sx={{ display: "grid", gap: 3 }}>
      <TextField
        label={label}
        value={signature.name}
        onChange={(e) => onSignature({ ...signature, name: e.target.value })}
        slotProps={{ htmlInput: { maxLength: 80, autoComplete: "name" } }}
      />
      <Box sx={{ position: "relative" }}>
        <canvas
          ref={canvas}
          aria-label="Sign here"
          role="img"
          style={{
            width: "100%",
            height: 140,
            touchAction: "none",
            display: "block",
            border: `1px solid ${problem ? ink.ember : ink.line}`,
            borderRadius: 8,
            background: "#fff",
          }}
        />
        {signature.drawing && (
          <Button size="small" onClick={again} sx={{ position: "absolute", right: 8, top: 8 }}>
            Again
          </Button>
        )}
      </Box>
      <Box sx={{ color: problem ? ink.ember : ink.ash, fontSize: 14 }} role={problem ? "alert" : undefined}>
        {problem ?? "Sign in the field above, with a finger or the mouse."}
      </Box>
    </Box>
  );
}

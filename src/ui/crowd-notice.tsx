"use client";
import { onCrowd } from "@/api/client";
import { passingProblems } from "@/core/passing-problems";
import Alert from "@mui/material/Alert";
import { useEffect, useState } from "react";

/** Says that a question waits since many people are asking; it is asked again by itself. */
export function CrowdNotice() {
  const [isCrowded, setCrowded] = useState(false);
  useEffect(() => onCrowd(setCrowded), []);
  return isCrowded ? (
    <Alert severity="info" role="status" sx={{ my: 3 }}>
      {passingProblems.crowded} We go on by ourselves.
    </Alert>
  ) : null;
}

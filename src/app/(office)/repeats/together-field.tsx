"use client";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { RepeatDetails } from "./data";

/** Whether what is done counts for the other sites of the same agreement too; nothing where there are none. */
export const TogetherField = ({
  repeat,
  value,
  onValue,
}: {
  repeat: RepeatDetails;
  value: boolean;
  onValue: (together: boolean) => void;
}) =>
  repeat.together.length > 0 && (
    <FormControlLabel
      control={<Checkbox checked={value} onChange={(e) => onValue(e.target.checked)} />}
      label={`For ${repeat.together.map(({ site }) => site.split(",")[0]).join(", ")} too`}
    />
  );

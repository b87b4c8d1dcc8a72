"use client";
import { AdapterDayjs } from "@mui/x-date-pickers/AdapterDayjs";
import { DateTimePicker } from "@mui/x-date-pickers/DateTimePicker";
import { LocalizationProvider } from "@mui/x-date-pickers/LocalizationProvider";
import dayjs, { type Dayjs } from "dayjs";

/** A moment to which the demo's clock is moved. */
export const MomentField = ({
  from,
  value,
  onValue,
}: {
  from: string;
  value: Dayjs | null;
  onValue: (value: Dayjs | null) => void;
}) => (
  <LocalizationProvider dateAdapter={AdapterDayjs}>
    <DateTimePicker
      label="To a moment"
      ampm={false}
      format="D MMM YYYY HH:mm"
      minDateTime={dayjs(from)}
      value={value}
      onChange={onValue}
      slotProps={{ textField: { size: "small" } }}
    />
  </LocalizationProvider>
);

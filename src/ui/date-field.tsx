"use client";
import { AdapterDayjs } from "@mui/x-date-pickers/AdapterDayjs";
import { DatePicker } from "@mui/x-date-pickers/DatePicker";
import { LocalizationProvider } from "@mui/x-date-pickers/LocalizationProvider";
import dayjs from "dayjs";

interface DateFieldProps {
  label: string;
  /** YYYY-MM-DD, or null where none is chosen. */
  value: string | null;
  onValue: (value: string | null) => void;
  wrong?: string;
  hint?: string;
  width?: number;
  clearable?: boolean;
}

/** A local date, typed or picked. A half-typed one changes nothing. */
export function DateField({ label, value, onValue, wrong, hint, width, clearable = false }: DateFieldProps) {
  return (
    <LocalizationProvider dateAdapter={AdapterDayjs}>
      <DatePicker
        label={label}
        format="D MMM YYYY"
        value={value ? dayjs(value) : null}
        onChange={(day) => (day === null ? onValue(null) : day.isValid() && onValue(day.format("YYYY-MM-DD")))}
        slotProps={{
          textField: {
            size: "small",
            error: !!wrong,
            helperText: wrong ?? hint,
            sx: { width: width ?? "100%", flexShrink: width ? 0 : 1 },
          },
          field: { clearable },
        }}
      />
    </LocalizationProvider>
  );
}

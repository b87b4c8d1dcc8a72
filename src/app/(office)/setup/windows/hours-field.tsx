"use client";
import { weekdayNames } from "@/core/time/words";
import { TimeField } from "@/ui/form-parts";
import { useHabits, weekdaysFrom } from "@/ui/habits";
import { ink } from "@/ui/palette";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import { type Wrong } from "./rule-fields";

export type WeeklyHours = { weekday: number; opens: number; closes: number }[];

/** Spans for each day of the week. */
export function HoursField({
  title,
  hours,
  onHours,
  wrong,
}: {
  title: string;
  hours: WeeklyHours;
  onHours: (hours: WeeklyHours) => void;
  wrong: Wrong;
}) {
  const { weekStart } = useHabits();
  const set = (at: number, change: Partial<WeeklyHours[number]>) =>
    onHours(hours.map((h, i) => (i === at ? { ...h, ...change } : h)));
  return (
    <Box role="group" aria-label={title}>
      <Typography variant="h3" sx={{ mb: 2 }}>
        {title}
      </Typography>
      {weekdaysFrom(weekStart)
        .map((weekday) => ({ weekday, day: weekdayNames[weekday]! }))
        .map(({ day, weekday }) => (
          <Box
            key={day}
            sx={{
              display: "flex",
              gap: 3,
              py: 1.5,
              borderTop: `1px solid ${ink.line}`,
              alignItems: "flex-start",
              minHeight: 52,
            }}
          >
            <Box sx={{ width: 100, pt: 2 }}>{day}</Box>
            <Box sx={{ flex: 1, display: "grid", gap: 2 }}>
              {hours.map(
                (span, at) =>
                  span.weekday === weekday && (
                    <Box key={at}>
                      <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
                        <TimeField
                          label={`${day} from`}
                          value={span.opens}
                          onValue={(opens) => set(at, { opens })}
                          sx={{ width: 140 }}
                        />
                        <TimeField
                          label={`${day} to`}
                          value={span.closes}
                          after={span.opens}
                          onValue={(closes) => set(at, { closes })}
                          sx={{ width: 140 }}
                        />
                        <IconButton
                          aria-label={`Remove this span of ${day}`}
                          onClick={() => onHours(hours.filter((_, i) => i !== at))}
                        >
                          <Close fontSize="small" />
                        </IconButton>
                      </Box>
                      {(wrong(`/hours/${at}`) ?? wrong(`/hours/${at}/opens`) ?? wrong(`/hours/${at}/closes`)) && (
                        <Box sx={{ color: "error.main", fontSize: 13 }}>
                          {wrong(`/hours/${at}`) ?? "A time, such as 9:00"}
                        </Box>
                      )}
                    </Box>
                  ),
              )}
            </Box>
            <Button
              size="small"
              startIcon={<Add />}
              aria-label={`Add a span to ${day}`}
              onClick={() => onHours([...hours, { weekday, ...nextSpan(hours.filter((h) => h.weekday === weekday)) }])}
            >
              Add hours
            </Button>
          </Box>
        ))}
    </Box>
  );
}

const nextSpan = (spans: { closes: number }[]) => {
  const from = spans.length ? Math.min(1320, Math.max(...spans.map((s) => s.closes)) + 30) : 480;
  return { opens: from, closes: Math.min(1440, from + 240) };
};

import { weekdayOf } from "@/core/time/dates";
import { dayShort, dayWords } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";

export interface StripDay {
  date: string;
  workable: number;
  promised: number;
  needsPerson: number;
  off: number;
}

const nearlyFull = 0.85;
const hours = (minutes: number) => `${Math.round(minutes / 60)} h`;

/** Fourteen days as arches, each filled from the ground by what is promised of what is workable. */
export function DayStrip({ days, chosen }: { days: StripDay[]; chosen: string | null }) {
  return (
    <Box
      component="nav"
      aria-label="Days"
      sx={{ display: "flex", gap: 2, px: 6, pb: 3, borderBottom: `1px solid ${ink.line}` }}
    >
      {days.map((day) => {
        const share = day.workable ? Math.min(1, day.promised / day.workable) : 0;
        const here = day.date === chosen;
        const words = `${dayWords(day.date)}: ${hours(day.promised)} promised of ${hours(day.workable)}${day.needsPerson ? `, ${day.needsPerson} unplaced` : ""}${day.off ? `, ${day.off} away` : ""}`;
        return (
          <LinkBox
            key={day.date}
            href={`/board?date=${day.date}`}
            aria-label={words}
            title={words}
            aria-current={here ? "date" : undefined}
            sx={{ flex: 1, minWidth: 0, textAlign: "center", textDecoration: "none", color: ink.ink }}
          >
            <Box
              sx={{
                position: "relative",
                height: 46,
                borderRadius: arch,
                overflow: "hidden",
                border: here ? `2px solid ${ink.pine}` : `1px solid ${ink.line}`,
                bgcolor: "#fff",
                ...(day.workable === 0 && {
                  background: `repeating-linear-gradient(-45deg, #fff 0 6px, ${ink.plaster} 6px 11px)`,
                }),
              }}
            >
              <Box
                sx={{
                  position: "absolute",
                  insetInline: 0,
                  bottom: 0,
                  height: `${share * 100}%`,
                  bgcolor: share > nearlyFull ? "#EAC77C" : ink.mist,
                }}
              />
              {day.off > 0 && day.workable > 0 && (
                <Box
                  sx={{
                    position: "absolute",
                    right: 0,
                    bottom: 0,
                    width: 10,
                    height: 10,
                    background: `linear-gradient(135deg, transparent 50%, ${ink.ash} 50%)`,
                  }}
                />
              )}
              {day.needsPerson > 0 && (
                <Box
                  sx={{
                    position: "absolute",
                    top: 7,
                    left: "calc(50% - 3px)",
                    width: 6,
                    height: 6,
                    borderRadius: "50%",
                    bgcolor: ink.ember,
                  }}
                />
              )}
              <Box sx={{ position: "absolute", insetInline: 0, bottom: 5, fontWeight: 700 }}>
                {Number(day.date.slice(8))}
              </Box>
            </Box>
            <Box
              sx={{
                fontSize: 12.5,
                mt: 1,
                color: here ? ink.ink : ink.ash,
                fontWeight: here ? 700 : 400,
                whiteSpace: "nowrap",
              }}
            >
              {dayShort(day.date).slice(0, 3)}
              {weekdayOf(day.date) === 6 && day.workable === 0 ? "" : ` ${hours(day.promised)}`}
            </Box>
          </LinkBox>
        );
      })}
    </Box>
  );
}

"use client";
import { clock, durationWords, windowWords } from "@/core/time/words";
import { imageAddress } from "@/ui/image-field";
import { arch, hues, ink, titleFont } from "@/ui/palette";
import { useDroppable } from "@dnd-kit/core";
import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import type { BoardDay, BoardStop, BoardVisit, PlacementOptions } from "./data";
import { DraggableVisit } from "./visit-card";

type Technician = BoardDay["technicians"][number];

interface RowProps {
  technician: Technician;
  day: BoardDay;
  start: number;
  end: number;
  scale: (minute: number) => string;
  lifted: BoardVisit | null;
  options: PlacementOptions | null;
  open: (id: number) => void;
  chosen: number | null;
}

export function Row({ technician, day, start, end, scale, lifted, options, open, chosen }: RowProps) {
  // An exact time has no width of its own; its arch gets half an hour.
  const width = (from: number, to: number) => `${((to === from ? 30 : to - from) / (end - start)) * 100}%`;
  const gaps = gapsOf(technician.spans, start, end);
  const arches = [...new Map(technician.stops.map((s) => [`${s.windowFrom} ${s.windowTo}`, s])).values()];
  const windows =
    lifted && !day.windows.some(([from, to]) => from === lifted.windowFrom && to === lifted.windowTo)
      ? [...day.windows, [lifted.windowFrom, lifted.windowTo] as const]
      : day.windows;
  return (
    <Box sx={{ display: "flex", borderBottom: `1px solid ${ink.line}`, minHeight: 88 }}>
      <Box sx={{ width: 176, flex: "none", px: 6, pt: 3, borderRight: `1px solid ${ink.line}` }}>
        <Box
          sx={{
            fontFamily: titleFont,
            fontWeight: 650,
            whiteSpace: "nowrap",
            display: "flex",
            gap: 1.5,
            alignItems: "center",
          }}
        >
          {technician.photo ? (
            <Box
              component="img"
              src={imageAddress(technician.photo)}
              alt=""
              sx={{
                width: 20,
                height: 22,
                objectFit: "cover",
                borderRadius: arch,
                outline: `2px solid ${hues[technician.hue]}`,
              }}
            />
          ) : (
            <Box
              aria-hidden
              sx={{ width: 11, height: 13, borderRadius: "6px 6px 2px 2px", bgcolor: hues[technician.hue] }}
            />
          )}
          {technician.name}
        </Box>
        <Box
          sx={{ fontSize: 12.5, color: ink.ash, overflow: "hidden", textOverflow: "ellipsis", whiteSpace: "nowrap" }}
          title={technician.skills.join(", ")}
        >
          {technician.skills.join(" · ")}
        </Box>
        <Box sx={{ fontSize: 12.5, color: technician.absence ? "error.main" : ink.ash }}>
          {technician.absence ??
            `${(technician.promised / 60).toFixed(1)} of ${(technician.workable / 60).toFixed(1)} h`}
        </Box>
        <Box sx={{ height: 4, mt: 1, bgcolor: ink.plaster, borderRadius: 2, overflow: "hidden" }}>
          <Box
            sx={{
              height: "100%",
              width: `${technician.workable ? Math.min(100, (technician.promised / technician.workable) * 100) : 0}%`,
              bgcolor: ink.pine,
            }}
          />
        </Box>
      </Box>
      <Box
        sx={{
          position: "relative",
          flex: 1,
          minWidth: 0,
          background: `repeating-linear-gradient(to right, ${ink.line} 0 1px, transparent 1px ${100 / ((end - start) / 60)}%)`,
        }}
      >
        {gaps.map(([from, to]) => (
          <Box
            key={from}
            sx={{
              position: "absolute",
              top: 0,
              bottom: 0,
              left: scale(from),
              width: width(from, to),
              background: `repeating-linear-gradient(-45deg, transparent 0 5px, ${ink.line}99 5px 6px)`,
            }}
          />
        ))}
        {technician.errands.map((e) => (
          <Tooltip
            key={`errand ${e.id}`}
            title={`${e.title}, ${clock(e.from)} to ${clock(e.to)}${e.place ? `, ${e.place}` : ""}`}
          >
            <Box
              role="img"
              aria-label={`Errand: ${e.title}`}
              sx={{
                position: "absolute",
                top: 27,
                height: 46,
                left: scale(e.from),
                width: width(e.from, e.to),
                bgcolor: ink.line,
                borderRadius: "6px",
                px: 1.5,
                fontSize: 12,
                lineHeight: "46px",
                overflow: "hidden",
                textOverflow: "ellipsis",
                whiteSpace: "nowrap",
              }}
            >
              {e.title}
            </Box>
          </Tooltip>
        ))}
        {arches.map((s) => (
          <Box
            key={`${s.windowFrom} ${s.windowTo}`}
            sx={{
              position: "absolute",
              top: 7,
              bottom: 0,
              left: scale(s.windowFrom),
              width: width(s.windowFrom, s.windowTo),
              bgcolor: "rgba(36,68,63,0.09)",
              border: "1px solid rgba(36,68,63,0.22)",
              borderBottom: 0,
              borderRadius: arch.replace(/6px/g, "0"),
              textAlign: "center",
              fontSize: 12,
              color: ink.ash,
              pt: 0.5,
            }}
          >
            {windowWords(s.windowFrom, s.windowTo)}
          </Box>
        ))}
        {technician.stops.map(
          (s) =>
            s.arrives > s.driveFrom && (
              <Drive key={`drive ${s.id}`} stop={s} left={scale(s.driveFrom)} width={width(s.driveFrom, s.arrives)} />
            ),
        )}
        {technician.stops.map((s) => (
          <Box
            key={s.id}
            sx={{ position: "absolute", top: 27, left: scale(s.arrives), width: width(s.arrives, s.leaves) }}
          >
            <DraggableVisit
              visit={s}
              late={technician.late.includes(s.id)}
              chosen={chosen === s.id}
              fixed={!day.canChange}
              open={() => open(s.id)}
            />
          </Box>
        ))}
        {day.now !== null && day.now >= start && day.now <= end && (
          <Box
            sx={{
              position: "absolute",
              top: 0,
              bottom: 0,
              left: scale(day.now),
              width: 2,
              bgcolor: ink.ember,
              pointerEvents: "none",
            }}
          />
        )}
        {lifted &&
          windows.map(([from, to]) => (
            <Landing
              key={`${from} ${to}`}
              technicianId={technician.id}
              from={from}
              to={to}
              left={scale(from)}
              width={width(from, to)}
              options={options}
            />
          ))}
      </Box>
    </Box>
  );
}

function Drive({ stop, left, width }: { stop: BoardStop; left: string; width: string }) {
  const minutes = stop.driving;
  return (
    <Tooltip title={`${durationWords(minutes)} driving to ${stop.customer}`}>
      <Box
        role="img"
        sx={{ position: "absolute", top: 50, left, width, height: 1.5, bgcolor: ink.ink, overflow: "visible" }}
      >
        {minutes >= 12 && (
          <Box
            component="span"
            sx={{ position: "absolute", top: 3, left: 0, right: 0, textAlign: "center", fontSize: 11, color: ink.ash }}
          >
            {minutes}
          </Box>
        )}
      </Box>
    </Tooltip>
  );
}

/** Where a lifted visit can be put down: says what it costs there, or why it cannot be. */
function Landing({
  technicianId,
  from,
  to,
  left,
  width,
  options,
}: {
  technicianId: number;
  from: number;
  to: number;
  left: string;
  width: string;
  options: PlacementOptions | null;
}) {
  const { setNodeRef, isOver } = useDroppable({
    id: `${technicianId} ${from} ${to}`,
    data: { technicianId, from, to },
  });
  const here = options?.find((o) => o.from === from && o.to === to)?.technicians.find((t) => t.id === technicianId);
  const colour = here?.fits ? ink.moss : ink.ember;
  return (
    <Box
      ref={setNodeRef}
      sx={{
        position: "absolute",
        top: 3,
        bottom: 3,
        left,
        width,
        borderRadius: arch,
        border: `${isOver ? 2 : 1}px ${here?.fits ? "solid" : "dashed"} ${options ? colour : ink.line}`,
        bgcolor: isOver ? (here?.fits ? "#E4EBD9f2" : "#F6E3DCf2") : "#ffffff99",
        display: "grid",
        placeItems: "end center",
        pb: 2,
        px: 1,
        fontSize: 11.5,
        lineHeight: 1.15,
        textAlign: "center",
        color: options ? colour : ink.ash,
        zIndex: isOver ? 4 : 3,
        overflow: "hidden",
      }}
    >
      {here ? (here.fits ? `+${here.extraDriving} min` : isOver ? here.why : "") : ""}
    </Box>
  );
}

function gapsOf(spans: Technician["spans"], start: number, end: number): [number, number][] {
  const edges = [start, ...spans.flat(), end];
  return Array.from({ length: edges.length / 2 }, (_, i): [number, number] => [
    edges[2 * i]!,
    edges[2 * i + 1]!,
  ]).filter(([from, to]) => to > from);
}

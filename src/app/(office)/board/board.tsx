"use client";
import { ask } from "@/api/client";
import { addDays } from "@/core/time/dates";
import { dayWords } from "@/core/time/words";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import {
  DndContext,
  type DragEndEvent,
  DragOverlay,
  type DragStartEvent,
  KeyboardSensor,
  PointerSensor,
  useSensor,
  useSensors,
} from "@dnd-kit/core";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import { DayStrip } from "../day-strip";
import { Top } from "../top";
import { announcements, type Landing, overLanding, toNextLanding } from "./carry";
import type { BoardDay, BoardVisit, PlacementOptions } from "./data";
import { MoveQuestion, useMove, type Wish } from "./move";
import { Row } from "./row";
import { Tray } from "./tray";
import { VisitCard } from "./visit-card";

const VisitSheet = dynamic(() => import("./visit-sheet").then((m) => m.VisitSheet));

/** A day: technicians as rows, promised windows as arches, visits inside them, driving between. */
export function Board({ date, today, openVisit }: { date: string; today: string; openVisit: number | null }) {
  const router = useRouter();
  const day = useShown("board", { date }, 60_000);
  const strip = useShown("day-strip", {}, 60_000);
  const [lifted, setLifted] = useState<BoardVisit | null>(null);
  const [options, setOptions] = useState<PlacementOptions | null>(null);
  const [wish, setWish] = useState<Wish | null>(null);
  const move = useMove();
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, {
      coordinateGetter: toNextLanding,
      keyboardCodes: { start: ["Space"], end: ["Space"], cancel: ["Escape"] },
    }),
  );
  const open = useCallback(
    (id: number | null) => router.push(`/board?date=${day.date}${id ? `&visit=${id}` : ""}`, { scroll: false }),
    [router, day.date],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      const busy =
        event.target instanceof HTMLElement &&
        event.target.closest(
          "input, textarea, select, [contenteditable=true], [role=dialog], [role=menu], [role=listbox]",
        );
      // A visit that is carried takes the arrows, and Escape, for itself.
      if (busy || lifted || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "ArrowLeft") router.push(`/board?date=${addDays(day.date, -1)}`);
      if (event.key === "ArrowRight") router.push(`/board?date=${addDays(day.date, 1)}`);
      if (event.key === "t" || event.key === "T") router.push(`/board?date=${today}`);
      if (event.key === "Escape" && openVisit) open(null);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [router, day.date, today, openVisit, open, lifted]);

  const lift = ({ active }: DragStartEvent) => {
    const visit = active.data.current as BoardVisit;
    setLifted(visit);
    setOptions(null);
    void ask("placement-options", { visitId: visit.id, date: day.date }).then(
      (result) => result.ok && setOptions(result.value),
    );
  };

  const drop = ({ over }: DragEndEvent) => {
    const visit = lifted;
    setLifted(null);
    if (!visit || !over) return;
    const { technicianId, from, to } = over.data.current as Landing;
    const before = day.technicians.filter((t) => t.stops.some((s) => s.id === visit.id)).map((t) => t.id);
    if (visit.crew === 1 && before.includes(technicianId) && from === visit.windowFrom) return;
    // A crew is carried by whoever goes with the one it was dropped on.
    const crew =
      visit.crew === 1
        ? [technicianId]
        : crewWith(technicianId, visit.crew, before, options?.find((o) => o.from === from)?.crew ?? null);
    const asked: Wish = { visit, date: day.date, technicianIds: crew, from, to, before };
    if (visit.state === "promised" && (from !== visit.windowFrom || to !== visit.windowTo)) setWish(asked);
    else void move(asked);
  };

  const [start, end] = hoursShown(day);
  const scale = (minute: number) => `${((minute - start) / (end - start)) * 100}%`;

  return (
    <>
      <Top title={dayWords(date)} sum={sumOf(day)} />
      <DayStrip days={strip} chosen={date} />
      <DndContext
        sensors={sensors}
        collisionDetection={overLanding}
        accessibility={{
          announcements: announcements(day, options),
          screenReaderInstructions: { draggable: "Enter opens the visit, Space lifts it." },
        }}
        onDragStart={lift}
        onDragEnd={drop}
        onDragCancel={() => setLifted(null)}
      >
        <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ display: "flex", borderBottom: `1px solid ${ink.line}` }}>
              <Box sx={{ width: 176, flex: "none" }} />
              <Box sx={{ position: "relative", flex: 1, height: 28 }}>
                {Array.from({ length: Math.floor((end - start) / 60) }, (_, i) => start + i * 60).map((minute) => (
                  <Box
                    key={minute}
                    sx={{ position: "absolute", left: scale(minute), top: 5, fontSize: 13, color: ink.ash, pl: 1 }}
                  >
                    {Math.floor(minute / 60)}:00
                  </Box>
                ))}
              </Box>
            </Box>
            {day.technicians.map((technician) => (
              <Row
                key={technician.id}
                technician={technician}
                day={day}
                start={start}
                end={end}
                scale={scale}
                lifted={lifted}
                options={options}
                open={open}
                chosen={openVisit}
              />
            ))}
            {day.technicians.length === 0 && (
              <Typography sx={{ p: 8 }}>Nobody is on the team yet. Add technicians under Set-up.</Typography>
            )}
          </Box>
          {openVisit ? (
            <VisitSheet key={openVisit} visitId={openVisit} onClose={() => open(null)} />
          ) : (
            <Tray
              visits={day.tray}
              open={open}
              place={(visit, technicianIds) =>
                void move({
                  visit,
                  date: day.date,
                  technicianIds,
                  from: visit.windowFrom,
                  to: visit.windowTo,
                  before: [],
                })
              }
              canChange={day.canChange}
            />
          )}
        </Box>
        <DragOverlay dropAnimation={null}>{lifted && <VisitCard visit={lifted} width={120} carried />}</DragOverlay>
        <MoveQuestion wish={wish} onNo={() => setWish(null)} onYes={(asked) => (setWish(null), void move(asked))} />
      </DndContext>
    </>
  );
}

/** "12 visits, 2 unplaced, 1 late". */
function sumOf(day: BoardDay): string {
  const visits = new Set(day.technicians.flatMap((t) => t.stops.map((s) => s.id))).size;
  const late = day.technicians.reduce((n, t) => n + t.late.length, 0);
  return [
    `${visits} ${visits === 1 ? "visit" : "visits"}`,
    day.tray.length ? `${day.tray.length} unplaced` : "",
    late ? `${late} late` : "",
  ]
    .filter(Boolean)
    .join(", ");
}

function crewWith(dropped: number, size: number, before: number[], offered: number[] | null): number[] {
  const others = [...before, ...(offered ?? [])].filter((id) => id !== dropped);
  return [dropped, ...new Set(others)].slice(0, size);
}

/** From the first to the last hour in which somebody works, is promised or can be. */
function hoursShown(day: BoardDay): [number, number] {
  const edges = [
    ...day.windows.flat(),
    ...day.technicians.flatMap((t) => [
      ...t.spans.flat(),
      ...t.stops.flatMap((s) => [s.driveFrom, s.leaves, s.windowFrom, s.windowTo]),
    ]),
  ];
  if (edges.length === 0) return [8 * 60, 18 * 60];
  return [Math.floor(Math.min(...edges) / 60) * 60, Math.ceil(Math.max(...edges) / 60) * 60];
}

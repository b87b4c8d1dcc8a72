"use client";
import { ask } from "@/api/client";
import { addDays } from "@/core/time/dates";
import { clock, dayWords } from "@/core/time/words";
import { crewWith } from "@/core/windows/crew-choice";
import { useShown } from "@/ui/live";
import { inkVariables } from "@/ui/palette";
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
import { memo, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { DayStrip } from "../day-strip";
import { Top } from "../top";
import css from "./board.module.css";
import { announcements, type Landing, liftWords, overLanding, toNextLanding } from "./carry";
import type { BoardDay, BoardVisit, Held } from "./data";
import { Hints } from "./hint";
import { Liftable, type Lifted, LiftedVisit } from "./lift";
import { type AskedMove, MoveQuestion, useMove } from "./move";
import { Row } from "./row";
import { type Frame, hoursShown, leftOf } from "./scale";
import { Tray } from "./tray";
import { HourWidth, VisitCard } from "./visit-card";

const VisitSheet = dynamic(() => import("./visit-sheet").then((m) => m.VisitSheet));

/** A day: technicians as rows, promised windows as arches, visits inside them, driving between. */
export function Board({ date, today, openVisit }: { date: string; today: string; openVisit: number | null }) {
  const router = useRouter();
  const day = useShown("board", { date }, 60_000);
  const strip = useShown("day-strip", {}, 60_000);
  const [lifted, setLifted] = useState<Lifted | null>(null);
  const [wish, setWish] = useState<AskedMove | null>(null);
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

  const lift = async ({ active }: DragStartEvent) => {
    const visit = (active.data.current as Held).visit!;
    setLifted({ visit, options: null });
    const options = await ask("placement-options", { visitId: visit.id, date: day.date });
    if (options.ok) setLifted((now) => (now?.visit.id === visit.id ? { visit, options: options.value } : now));
  };

  const drop = ({ over }: DragEndEvent) => {
    setLifted(null);
    if (!lifted || !over) return;
    const { visit, options } = lifted;
    const { technicianId, from, to } = over.data.current as Landing;
    const before = day.technicians.filter((t) => t.stops.some((s) => s.id === visit.id)).map((t) => t.id);
    if (visit.crew === 1 && before.includes(technicianId) && from === visit.windowFrom) return;
    // A crew is carried by whoever goes with the one it was dropped on.
    const crew =
      visit.crew === 1
        ? [technicianId]
        : crewWith(technicianId, visit.crew, before, options?.find((o) => o.from === from)?.crew ?? []);
    const tells = visit.state === "promised" && (from !== visit.windowFrom || to !== visit.windowTo);
    const asked: AskedMove = { visit, date: day.date, technicianIds: crew, from, to, before, tells };
    if (tells || visit.repeatId !== null) setWish(asked);
    else void move(asked);
  };

  const frame = useMemo((): Frame => {
    const [start, end] = hoursShown(day);
    return { start, end, now: day.now };
  }, [day]);
  const visits = useMemo(
    () =>
      new Map([...day.technicians.flatMap((t) => t.stops), ...day.tray].map((v): [number, BoardVisit] => [v.id, v])),
    [day],
  );

  return (
    <Box style={inkVariables}>
      <Top title={dayWords(date)} sum={sumOf(day)} />
      <DayStrip days={strip} chosen={date} />
      <DndContext
        id={liftWords}
        sensors={sensors}
        collisionDetection={overLanding}
        accessibility={{
          announcements: announcements(day, lifted?.options ?? null),
          screenReaderInstructions: { draggable: "Enter opens the visit, Space lifts it." },
        }}
        onDragStart={(start) => void lift(start)}
        onDragEnd={drop}
        onDragCancel={() => setLifted(null)}
      >
        <LiftedVisit.Provider value={lifted}>
          <Hints off={lifted !== null}>
            <Liftable find={(id) => visits.get(id)} open={open}>
              <Box sx={{ display: "flex" }}>
                <Rows day={day} frame={frame} chosen={openVisit} />
                {openVisit ? (
                  <VisitSheet key={openVisit} visitId={openVisit} onClose={() => open(null)} onOpen={open} />
                ) : (
                  <Tray
                    visits={day.tray}
                    place={(visit, technicianIds) =>
                      void move({
                        visit,
                        date: day.date,
                        technicianIds,
                        from: visit.windowFrom,
                        to: visit.windowTo,
                        before: [],
                        tells: false,
                      })
                    }
                    canChange={day.canChange}
                  />
                )}
              </Box>
            </Liftable>
          </Hints>
        </LiftedVisit.Provider>
        <DragOverlay dropAnimation={null}>
          {lifted && (
            <div data-carried style={{ ...inkVariables, width: 120 }}>
              <VisitCard visit={lifted.visit} width={120} carried />
            </div>
          )}
        </DragOverlay>
        <MoveQuestion
          wish={wish}
          onNo={() => setWish(null)}
          onYes={(asked) => {
            setWish(null);
            void move(asked);
          }}
        />
      </DndContext>
    </Box>
  );
}

/** More than so many rows are drawn lower, so that most of the team is seen at once. */
const mostFullRows = 10;

const Rows = memo(function Rows({ day, frame, chosen }: { day: BoardDay; frame: Frame; chosen: number | null }) {
  const { start, end } = frame;
  const hours = Array.from({ length: Math.floor((end - start) / 60) }, (_, i) => start + i * 60);
  const lane = useRef<HTMLDivElement>(null);
  const [hourWidth, setHourWidth] = useState(72);
  useEffect(() => {
    const watched = new ResizeObserver(([entry]) => setHourWidth((entry!.contentRect.width / (end - start)) * 60));
    watched.observe(lane.current!);
    return () => watched.disconnect();
  }, [start, end]);
  return (
    <div className={day.technicians.length > mostFullRows ? `${css.rows} ${css.compact}` : css.rows}>
      <div className={css.hours}>
        <div className={css.corner} />
        <Box ref={lane} sx={{ position: "relative", flex: 1, height: 28 }}>
          {hours.map((minute) => (
            <div key={minute} className={css.hour} style={{ left: leftOf(frame, minute) }}>
              {clock(minute)}
            </div>
          ))}
        </Box>
      </div>
      <HourWidth.Provider value={hourWidth}>
        {day.technicians.map((technician) => (
          <Row
            key={technician.id}
            technician={technician}
            frame={frame}
            windows={day.windows}
            canChange={day.canChange}
            chosen={technician.stops.some((s) => s.id === chosen) ? chosen : null}
          />
        ))}
      </HourWidth.Provider>
      {day.technicians.length === 0 && (
        <Typography sx={{ p: 8 }}>Nobody is on the team yet. Add technicians under Set-up.</Typography>
      )}
    </div>
  );
});

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

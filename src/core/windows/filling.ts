import { prepareDay } from "../routes/insertion";
import type { Stop, Travel } from "../routes/timing";
import { groupBy } from "../group";
import type { LocalDate } from "../time/dates";
import { subtractSpans } from "../time/spans";
import { type Booking, type Limit, type Taken, takenOf } from "./limits";
import type { Offer } from "./offer";
import { answerWindows } from "./offers";
import type { PromiseWindow } from "./promise-window";
import { type CandidateTechnician, lengthOf, type TechnicianDay, type WindowsQuestion } from "./question";

/**
 * How many visits there is room for: one after the other is given the soonest window that is offered to it, and what it takes
 * is gone for those after it. Answers the window of each, or null where none is left. Every window that is given could be
 * promised to all of them together: it is the engine's own answer, on days that hold what was given before.
 */
export function fillUp(questions: Iterable<WindowsQuestion>): (PromiseWindow | null)[] {
  const plan = new FilledPlan();
  return [...questions].map((question) => plan.give(question));
}

/** Days with what has been put into them. */
class FilledPlan {
  private readonly days = new Map<string, TechnicianDay>();
  private readonly all: Booking[] = [];
  private readonly seats = new Map<string, number>();

  give(question: WindowsQuestion): PromiseWindow | null {
    const asked = this.asItIsNow(question);
    // Day by day: whoever finds room on the first has no need of the others.
    for (const windows of groupBy(question.windows, ({ date }) => date).values()) {
      const offer = answerWindows({ ...asked, windows }).find((answer): answer is Offer => answer.offered);
      if (!offer) continue;
      this.take(asked, offer);
      return { date: offer.date, from: offer.from, to: offer.to };
    }
    return null;
  }

  private asItIsNow(question: WindowsQuestion): WindowsQuestion {
    const { rules, technicians, seats } = question;
    const more = takenOf(this.all);
    const also =
      (taken: Taken): Taken =>
      (window, per) =>
        taken(window, per) + more(window, per);
    // What was given counts for every limit, whosever it is: rather one too few than one too many.
    const limited = (limits: readonly Limit[]) => limits.map((limit) => ({ ...limit, taken: also(limit.taken) }));
    return {
      ...question,
      rules: {
        ...rules,
        limits: limited(rules.limits),
        capacity:
          rules.capacity.mode === "count" ? { ...rules.capacity, taken: also(rules.capacity.taken) } : rules.capacity,
      },
      technicians: technicians.map((technician) => ({
        ...technician,
        ...(technician.limits && { limits: limited(technician.limits) }),
        day: (date: LocalDate) => this.days.get(keyOf(technician, date)) ?? technician.day(date),
      })),
      ...(seats && {
        seats: {
          ...seats,
          at: (window: PromiseWindow) => {
            const there = seats.at(window);
            const given = this.seats.get(timeOf(window)) ?? 0;
            if (there) return { ...there, taken: there.taken + given };
            return given > 0 ? { id: "given", taken: given, technicians: [], begins: window.from } : null;
          },
        },
      }),
    };
  }

  private take({ seats, visit, travel, technicians }: WindowsQuestion, offer: Offer): void {
    if (seats) {
      this.seats.set(timeOf(offer), (this.seats.get(timeOf(offer)) ?? 0) + seats.asked);
      // Whoever joins a time adds no visit to a day.
      if (seats.at({ ...offer })!.taken > seats.asked) return;
    }
    this.all.push(offer, ...offer.followingDays);
    const at = offer.meetAt ?? null;
    for (const { id, position, arrive } of offer.technicians.slice(0, visit.crew)) {
      const technician = technicians.find((one) => one.id === id)!;
      const stop = { ...visit, earliest: at ?? offer.from, latest: at ?? offer.to };
      this.put(technician, offer.date, (day) => withStop(day, stop, { position, at: at ?? arrive[0] }, travel));
      // Where in a following day it stands is not said: all of that day is taken.
      for (const { date } of offer.followingDays)
        this.put(technician, date, () => ({ works: false, code: "outside-hours" }));
    }
  }

  private put(
    technician: CandidateTechnician,
    date: LocalDate,
    change: (day: TechnicianDay & { works: true }) => TechnicianDay,
  ): void {
    const day = technician.day(date);
    if (day.works) this.days.set(keyOf(technician, date), change(day));
  }
}

const keyOf = ({ id }: { id: string }, date: LocalDate): string => `${id} ${date}`;
const timeOf = ({ from, to }: PromiseWindow): string => `${from} ${to}`;

/** A day with one more stop at a position; with one more call, which has no place, within its hours. */
function withStop(
  { day, load }: TechnicianDay & { works: true },
  visit: WindowsQuestion["visit"] & Pick<Stop, "earliest" | "latest">,
  { position, at }: { position: number; at: number },
  travel: Travel,
): TechnicianDay {
  const length = lengthOf(visit);
  const { place } = visit;
  const filled =
    place === null
      ? { ...day, spans: subtractSpans(day.spans, [[at, at + length]]) }
      : {
          ...day,
          stops: [...day.stops.slice(0, position), { ...visit, place }, ...day.stops.slice(position)],
        };
  const ready = prepareDay(filled, travel);
  return ready ? { works: true, day: ready, load: load + length } : { works: false, code: "day-not-feasible" };
}

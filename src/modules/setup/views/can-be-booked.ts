import { justOne } from "@/core/catalogue/items";
import { mendedAt, unbookableWords } from "@/core/setup/unbookable";
import { Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { readItem } from "@/modules/catalogue/catalogue";
import { namesOf } from "@/modules/placing/windows";
import { sizesOf, unbookable } from "../unbookable";

/** What of one service nobody can book, as the engine answers: in which zone, with which answers, and the one setting that stands against it. */
export const canBeBooked = defineView({
  name: "can-be-booked",
  access: "setup.change",
  about: { serviceId: "shared" },
  input: input({ serviceId: Id }),
  read(context, { serviceId }) {
    const { service } = readItem(context, justOne(serviceId));
    const found = unbookable(context, serviceId);
    if (found.length === 0) return [];
    const visits = sizesOf(context, serviceId).map(({ size, visit }) => [size, visit(null)] as const);
    const bySize = (of: (visit: (typeof visits)[number][1]) => number) =>
      ({ ...sizeless, ...Object.fromEntries(visits.map(([size, visit]) => [size, of(visit)])) }) as typeof sizeless;
    const asked = {
      name: service.name,
      length: bySize(({ before, minutes, after }) => before + minutes + after),
      crew: bySize(({ crew }) => crew),
      noticeMinutes: Math.max(
        service.notice_minutes,
        context.business.notice_minutes,
        ...found.map(({ zone }) => noticeOf(zone?.id ?? null)),
      ),
      horizonDays: context.business.horizon_days,
      today: context.today,
    };
    return unbookableWords(found, asked, namesOf(context)).map(({ one, sentence }) => ({
      ...mendedAt(one, serviceId),
      sentence,
    }));

    function noticeOf(zoneId: number | null): number {
      return (
        context.sql<{ notice: number }>("SELECT notice_minutes AS notice FROM zones WHERE id = ?").get(zoneId)
          ?.notice ?? 0
      );
    }
  },
});

const sizeless = { always: 0, longest: 0, "most people": 0, "most skills": 0 };

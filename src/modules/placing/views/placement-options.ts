import { localOf } from "@/core/time/local";
import { windowsOn } from "@/core/windows/patterns";
import { reasonWords } from "@/core/windows/words";
import { DateText, Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { readPattern } from "@/modules/catalogue/window-patterns";
import { inOffice, windowOf } from "@/modules/placing/in-office";
import { togetherWith } from "@/modules/placing/shared-times";
import { daysOfWork, placingOf, readVisit } from "@/modules/placing/visits";
import { answersWithin, explainWithin, namesOf } from "@/modules/placing/windows";

const PlacementOptions = input({ visitId: Id, date: DateText });

/** For moving a visit on a date: each window and each technician, with what it would cost or why it cannot be. */
export const placementOptions = defineView({
  name: "placement-options",
  access: "board.change",
  about: { visitId: "visit" },
  input: PlacementOptions,
  read(context, { visitId, date }) {
    const { business } = context;
    const visit = readVisit(context, visitId);
    const own = date === visit.date ? [windowOf(visit)] : [];
    const pattern = windowsOn(readPattern(context, placingOf(visit).serviceIds), [date], business.time_zone).filter(
      (w) => !own.some((o) => o.from === w.from && o.to === w.to),
    );
    const windows = [...own, ...pattern].sort((a, b) => a.from - b.from);
    const days = visit.first_visit_id === null ? daysOfWork(context, visit) : [visit];
    const options = { ...inOffice(visit), without: [...days, ...togetherWith(context, visit)].map((v) => v.id) };
    // Of a crew, each is looked at alone; who can come together is asked once more.
    const alone = explainWithin(context, { ...placingOf(visit, days.length), crew: 1 }, windows, options);
    const together = visit.crew > 1 ? answersWithin(context, placingOf(visit, days.length), windows, options) : [];
    const names = namesOf(context);
    return windows.map((window, i) => {
      const crew = together[i];
      return {
        from: localOf(window.from, business.time_zone).minute,
        to: localOf(window.to, business.time_zone).minute,
        isPromised: window.from === visit.window_from && window.to === visit.window_to,
        technicians: alone[i]!.technicians.map(({ id, fits, reason }) => ({
          id: Number(id),
          name: names.technician(id),
          ...(fits
            ? {
                fits: true as const,
                extraDriving: fits.extraDriving,
                arrives: localOf(fits.arrive[0], business.time_zone).minute,
              }
            : { fits: false as const, why: reasonWords({ technician: id, ...reason! }, names) }),
        })),
        crew: crew?.offered ? crew.technicians.map((t) => Number(t.id)) : null,
      };
    });
  },
});

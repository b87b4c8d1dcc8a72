import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { runDue } from "@/worker/loop";
import {
  changeDateByLink,
  endPauseByLink,
  pauseByLink,
  restoreDateByLink,
} from "@/modules/my-visit/operations/own-dates";
import { myDateOffers, myDates, myRepeatCalendar } from "@/modules/my-visit/views/my-dates";
import { office, saidOf, worldWithPost } from "@demo/small-world";
import { makeRepeat } from "./operations/repeats";
import { repeatCalendarView } from "./views/repeat-calendar";

/** A customer who comes back every second Wednesday, with their link. */
async function world() {
  const small = worldWithPost();
  const { visitId, actor } = small.booked();
  const { repeatId } = mustPerform(small.hogar, makeRepeat, { visitId, rule: "FREQ=WEEKLY;INTERVAL=2" }, office);
  await runDue(small.hogar);
  const view = () => {
    const result = look(small.hogar, myDates, {}, actor);
    if (!result.ok) throw new Error(result.problem.sentence);
    return result.value;
  };
  return { ...small, actor, repeatId, view };
}

describe("a customer's own dates", () => {
  it("are seen by their link: what is promised with its time, what is not without one", async () => {
    const { view } = await world();
    expect(view().dates.slice(0, 3)).toMatchObject([
      { date: "2027-03-10", isPromised: true, window: [540, 660] },
      { date: "2027-03-24", isPromised: false, window: null },
      { date: "2027-04-07", isPromised: false },
    ]);
  });

  it("are moved into a window that can be kept, left out, and set back; what is promised is not", async () => {
    const { hogar, actor, view } = await world();
    const offers = look(hogar, myDateOffers, { date: "2027-04-07" }, actor);
    if (!offers.ok) throw new Error(offers.problem.sentence);
    const { date, from, to } = offers.value.find((offer) => offer.date === "2027-04-09")!;
    mustPerform(hogar, changeDateByLink, { date: "2027-04-07", window: { date, from, to } }, actor);
    mustPerform(hogar, changeDateByLink, { date: "2027-04-21", window: null }, actor);
    expect(view().dates.slice(2, 4)).toMatchObject([
      { day: "2027-04-09", isAgreed: true },
      { day: null, becomes: "skipped" },
    ]);
    mustPerform(hogar, restoreDateByLink, { date: "2027-04-21" }, actor);
    expect(view().dates[3]).toMatchObject({ day: "2027-04-21", isAgreed: false });
    expect(saidOf(perform(hogar, changeDateByLink, { date: "2027-03-10", window: null }, actor))).toContain(
      "move or cancel that visit itself, on this page",
    );
  });

  it("are too late to change where a visit would be, and then nothing has changed", async () => {
    const { hogar, actor, view, at } = await world();
    const before = view().dates[1];
    at("2027-03-24", 480);
    expect(saidOf(perform(hogar, changeDateByLink, { date: "2027-03-24", window: null }, actor))).toContain("too late");
    at("2027-03-09", 480);
    expect(view().dates[1]).toEqual(before);
  });

  it("pause and go on", async () => {
    const { hogar, actor, view } = await world();
    mustPerform(hogar, pauseByLink, { first: "2027-03-20", last: "2027-04-10" }, actor);
    expect(view().dates.slice(1, 4)).toMatchObject([
      { becomes: "paused" },
      { becomes: "paused" },
      { day: "2027-04-21" },
    ]);
    mustPerform(hogar, endPauseByLink, { pauseId: view().pauses[0]!.id }, actor);
    expect(view().dates[1]).toMatchObject({ day: "2027-03-24" });
  });

  it("are one calendar, for the customer and for the office", async () => {
    const { hogar, actor, repeatId } = await world();
    mustPerform(hogar, changeDateByLink, { date: "2027-04-21", window: null }, actor);
    const theirs = look(hogar, myRepeatCalendar, {}, actor);
    expect(theirs).toEqual(look(hogar, repeatCalendarView, { repeatId }, office));
    if (!theirs.ok) throw new Error(theirs.problem.sentence);
    expect(theirs.value).toContain("RRULE:FREQ=WEEKLY;INTERVAL=2");
    expect(theirs.value).toContain("EXDATE;TZID=Europe/Lisbon:20270421T090000");
  });
});

import { mustPerform, perform } from "@/kernel/operation";
import { sealedToken } from "@/kernel/links";
import { look } from "@/kernel/view";
import { threads } from "@/modules/messages/views/threads";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { ownViews } from "@/registry/modules";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { runDue } from "@/worker/loop";
import { office, one, paymentFor, saidOf, type SmallBooking, visitor, worldWithPost } from "@demo/small-world";
import { answerReview, goToReviewPlace, replyToReview, saveReviewRules, settleReview } from "./operations/reviews";
import { review, reviewFigures, reviews } from "./views/reviews";

const rules = {
  when: "done" as "never" | "done" | "paid",
  hours: 2,
  restDays: 100,
  places: [] as { id: null; name: string; address: string }[],
};

function world(more: Partial<typeof rules> = {}) {
  const w = worldWithPost();
  mustPerform(w.hogar, saveReviewRules, { ...rules, ...more }, office);
  /** A visit that is done; the clock stands at its end. */
  const done = (booking: SmallBooking = {}) => {
    const job = w.booked(booking);
    w.onTheDayOf(job.visitId);
    for (const to of ["on the way", "on site", "done"] as const)
      mustPerform(w.hogar, advanceVisit, { visitId: job.visitId, to }, office);
    return job;
  };
  const hours = async (n: number) => {
    for (let i = 0; i < n; i++) {
      w.later(60);
      await runDue(w.hogar);
    }
  };
  const asked = () => w.sent.filter(({ body }) => /was not right|something not right|was something/.test(body)).length;
  const tokenOf = (jobId: number) =>
    sealedToken(w.hogar, {
      kind: "review",
      id: one<{ id: number }>(w.hogar, "SELECT id FROM reviews WHERE job_id = ?", jobId).id,
    });
  const answer = (jobId: number, rating: number, praise = "", trouble = "") =>
    perform(w.hogar, answerReview, { token: tokenOf(jobId), rating, praise, trouble }, visitor);
  const page = (jobId: number) => {
    const view = look(w.hogar, review, { token: tokenOf(jobId) }, visitor);
    if (!view.ok) throw new Error(view.problem.sentence);
    return view.value;
  };
  const list = (show: "all" | "trouble" | "unanswered" = "all") => {
    const view = look(w.hogar, reviews, { page: 0, size: 20, sort: "at", descending: true, search: "", show }, office);
    return view.ok ? view.value.rows : [];
  };
  const needs = () => {
    const view = look(w.hogar, ownViews.today, {}, office);
    return view.ok ? view.value.needs.filter(({ kind }) => kind === "trouble").map(({ words }) => words) : [];
  };
  return { ...w, done, hours, asked, tokenOf, answer, page, list, needs };
}

describe("customers are asked how it was", () => {
  it("once, so many hours after the work, however often the worker looks", async () => {
    const w = world();
    w.done();
    await w.hours(1);
    expect(w.asked()).toBe(0);
    await w.hours(30);
    expect(w.asked()).toBe(1);
  });

  it("only once it is paid, where the owner wants that", async () => {
    const w = world({ when: "paid" });
    w.done();
    await w.hours(20);
    expect(w.asked()).toBe(0);
    const { id, total_minor: amountMinor } = one<{ id: number; total_minor: number }>(
      w.hogar,
      "SELECT * FROM invoices",
    );
    mustPerform(
      w.hogar,
      recordPayment,
      paymentFor(w.hogar, id, { method: "cash", amountMinor, key: "at the door" }),
      office,
    );
    await w.hours(20);
    expect(w.asked()).toBe(1);
  });

  it("not again soon after, and not at all unless the owner wants it", async () => {
    const w = world();
    w.done();
    await w.hours(30);
    w.done({ as: office, window: w.offers().at(-1) as never });
    await w.hours(48);
    expect(w.asked()).toBe(1);
    const never = world({ when: "never" });
    never.done();
    await never.hours(30);
    expect(never.asked()).toBe(0);
  });

  it("not about what was done before it was wanted", async () => {
    const w = world({ when: "never" });
    w.done();
    await w.hours(1);
    mustPerform(w.hogar, saveReviewRules, rules, office);
    await w.hours(30);
    expect(w.asked()).toBe(0);
  });
});

describe("what a customer says", () => {
  it("offers praise, trouble and the other places to everybody, and stands in the conversation", async () => {
    const w = world({ places: [{ id: null, name: "Neighbours", address: "https://neighbours.example/us" }] });
    const { jobId } = w.done();
    await w.hours(30);
    expect(saidOf(w.answer(jobId, 2, "Friendly", "Soot on the carpet"))).toBe("done");
    expect(w.page(jobId)).toMatchObject({
      said: { rating: 2, praise: "Friendly", trouble: "Soot on the carpet" },
      places: [{ name: "Neighbours" }],
    });
    mustPerform(w.hogar, goToReviewPlace, { token: w.tokenOf(jobId), placeId: w.page(jobId).places[0]!.id }, visitor);
    expect(w.list()[0]).toMatchObject({ wentTo: ["Neighbours"], technicians: [expect.any(String)] });
    const waiting = look(w.hogar, threads, { show: "waiting", search: "", more: 0 }, office);
    expect(waiting.ok && waiting.value.rows[0]!.words).toBe(
      "2 of 5 stars for Chimney sweep\nFriendly\nNot right: Soot on the carpet",
    );
  });

  it("stands before the office where it is trouble, until it is dealt with", async () => {
    const w = world();
    const { jobId } = w.done();
    await w.hours(30);
    w.answer(jobId, 2, "", "Soot on the carpet");
    expect(w.needs()).toEqual(["Mira Okonjo tells of trouble: “Soot on the carpet”"]);
    expect(w.list("trouble")).toHaveLength(1);
    mustPerform(w.hogar, settleReview, { id: w.list()[0]!.id, settled: true }, office);
    expect(w.needs()).toEqual([]);
    mustPerform(w.hogar, settleReview, { id: w.list()[0]!.id, settled: false }, office);
    expect(w.needs()).toHaveLength(1);
  });

  it("can be said anew until it is answered; the answer reaches them once, and deals with the trouble", async () => {
    const w = world();
    const { jobId } = w.done();
    await w.hours(30);
    w.answer(jobId, 1, "", "It smokes");
    expect(saidOf(w.answer(jobId, 3, "Better now", "It smokes a little"))).toBe("done");
    const { id } = w.list()[0]!;
    mustPerform(w.hogar, replyToReview, { id, words: "We come on Thursday and put it right." }, office);
    await w.hours(14);
    expect(w.sent.filter(({ body }) => body.includes("We come on Thursday")).map(({ way }) => way)).toEqual(["mail"]);
    expect(w.page(jobId).reply).toEqual({ words: "We come on Thursday and put it right.", by: "Odile Brandt" });
    expect(w.needs()).toEqual([]);
    expect(saidOf(perform(w.hogar, replyToReview, { id, words: "Once more" }, office))).toBe(
      "Odile Brandt has answered this already.",
    );
    expect(saidOf(w.answer(jobId, 5))).toMatch(/^We have answered this already/);
  });

  it("makes the mean of technicians and services", async () => {
    const w = world({ restDays: 0 });
    const first = w.done();
    await w.hours(3);
    w.answer(first.jobId, 5);
    const second = w.done({ name: "Anton Lund", nth: 12 });
    await w.hours(30);
    w.answer(second.jobId, 4);
    const view = look(w.hogar, reviewFigures, { days: 91 }, office);
    expect(view).toMatchObject({
      value: { asked: 2, answered: 2, mean: 4.5, services: [{ name: "Chimney sweep", n: 2, mean: 4.5 }] },
    });
    expect(view.ok && view.value.technicians.reduce((n, row) => n + row.n, 0)).toBe(2);
  });
});

it("refuses a place that is no web address", () => {
  const w = world();
  const places = [{ id: null, name: "Somewhere", address: "javascript:alert(1)" }];
  expect(saidOf(perform(w.hogar, saveReviewRules, { ...rules, places }, office))).toMatch(
    /^Write the whole web address/,
  );
});

import { agreementOf } from "@/core/catalogue/agreement";
import { paidNow } from "@/core/catalogue/baskets";
import { shownQuestions, type Answer, type Question } from "@/core/catalogue/questions";
import type { Problem } from "@/core/problems";
import { testCards } from "@/gateways/cards-standin";
import { perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { holdOffer } from "@/modules/booking/operations/hold-offer";
import { book } from "@/modules/front-door/operations/book";
import { checkBooker, frontDoor, offers, servicesAt } from "@/modules/front-door/views/front-door";
import { one, smallWorld, visitor } from "@demo/small-world";
import { chosenOf, type Draft, emptyDraft, priceOf, steps, withPhoto } from "./draft";
import { afterRefusal, saidOnTop, upToDate } from "./up-to-date";

const answerTo = (question: Question): Answer =>
  question.kind === "one" ? question.choices[0]!.id : question.kind === "count" ? question.min : true;
/** So often a patient customer presses; whoever needs more goes round. */
const mostPresses = 14;

/** A customer who presses the one button of each step, reads what is said, and answers what is asked anew. */
function customer() {
  const w = smallWorld();
  w.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () => {
    w.hogar.store.sql("UPDATE business SET horizon_days = 20").run();
    w.hogar.store
      .sql("INSERT INTO coupons (code, kind, value, services, active) VALUES ('SPRING', 'percent', 1000, '[]', 1)")
      .run();
    w.hogar.store.sql('UPDATE services SET repeats = \'[{"every":1,"unit":"year"}]\'').run();
  });
  const set = (change: string) =>
    w.hogar.store.audit.under({ at: 0, actor: "test", operation: "test" }, () => w.hogar.store.db.exec(change));
  const { id: addressId, line, postcode, lng, lat } = w.addresses[10]!;
  const readDoor = () => {
    const seen = look(w.hogar, frontDoor, {}, visitor);
    if (!seen.ok) throw new Error(seen.problem.sentence);
    return seen.value;
  };
  const readServices = () => {
    const seen = look(w.hogar, servicesAt, { addressId }, visitor);
    if (!seen.ok) throw new Error(seen.problem.sentence);
    return seen.value;
  };
  let [business, at] = [readDoor(), readServices()];
  let draft: Draft = {
    ...emptyDraft,
    address: { id: addressId, line, postcode, lng, lat },
    items: [{ serviceId: w.services.sweep, quantity: 1, answers: {}, extras: [] }],
    repeat: { every: 1, unit: "year" },
    coupon: { code: "SPRING", kind: "percent", value: 1000, services: [] },
    name: "Mira Okonjo",
    mail: "mira@example.com",
    phone: "+1 555 0142",
    step: "what",
  };
  let said: string[] = [];

  const refused = (problem: Problem) => {
    said = saidOnTop(problem, draft.step);
    const beside = Object.values(problem.fields ?? {});
    if (said.length === 0) said = beside;
    expect(said.length).toBeGreaterThan(0);
    draft = { ...draft, ...afterRefusal(problem, draft) };
    [business] = [readDoor()];
    const before = at;
    at = readServices();
    const now = upToDate(draft, at, business, before);
    draft = now.draft;
    said = [...said, ...now.said];
  };
  /** What is asked beside the button is answered. */
  const answers = () => {
    const chosen = chosenOf(draft, at);
    draft = {
      ...draft,
      items: chosen.map(({ service, ...item }) => ({
        ...item,
        answers: {
          ...Object.fromEntries(
            shownQuestions(service.ordered.questions, item.answers).map((q) => [q.id, answerTo(q)]),
          ),
          ...item.answers,
        },
      })),
      fields: { ...Object.fromEntries(business.fields.map((q) => [q.id, answerTo(q)])), ...draft.fields },
    };
  };
  const asked = () => ({ addressId, items: draft.items, technicianId: draft.technicianId });
  const priced = () =>
    priceOf(chosenOf(draft, at), at, {
      coupon: draft.coupon,
      onOurWayBp: draft.offer?.onOurWay ? business.onOurWayBp : 0,
    })!;

  /** Presses the button once. Answers "booked", or "nothing" where nothing can be chosen any more. */
  const press = (): "booked" | "nothing" | null => {
    const chosen = chosenOf(draft, at);
    if (draft.step === "where") {
      // What stands there says that we do not come.
      if (at.services.length === 0) return "nothing";
      draft = { ...draft, step: "what" };
      return null;
    }
    if (draft.step === "what") {
      if (chosen.length === 0 && at.services.length === 0) return "nothing";
      if (chosen.length === 0)
        draft = { ...draft, items: [{ serviceId: at.services[0]!.id, quantity: 1, answers: {}, extras: [] }] };
      answers();
      draft = { ...draft, step: "when" };
      return null;
    }
    if (draft.step === "when") {
      const seen = look(w.hogar, offers, asked(), visitor);
      if (!seen.ok) return (refused(seen.problem), null);
      const [offer] = seen.value.windows;
      // What stands there in place of windows says so, and asks what would suit.
      if (!offer) return "nothing";
      const kept = perform(
        w.hogar,
        holdOffer,
        { ...asked(), date: offer.date, from: offer.from, to: offer.to },
        visitor,
      );
      if (!kept.ok) return (refused(kept.problem), null);
      const { onOurWay, ...hold } = kept.value;
      draft = { ...draft, offer: { ...offer, onOurWay }, hold, step: "who" };
      return null;
    }
    if (draft.step === "who") {
      answers();
      const { name, mail, phone, fields } = draft;
      const seen = look(w.hogar, checkBooker, { customer: { name, mail, phone, reminders: true }, fields }, visitor);
      if (!seen.ok) return (refused(seen.problem), null);
      draft = { ...draft, step: "pay" };
      return null;
    }
    const order = priced();
    const nowMinor = business.takesCards ? paidNow(order, false) : 0;
    const { date, from, to } = draft.offer!;
    const read = agreementOf(business, {
      items: chosen.map(({ service }, i) => ({
        ...service.terms,
        name: service.name,
        totalMinor: order.items[i]!.totalMinor,
      })),
      totalMinor: order.totalMinor,
      nowMinor,
    });
    const { name, mail, phone, fields, repeat } = draft;
    const result = perform(
      w.hogar,
      book,
      {
        ...asked(),
        ...{ date, from, to, fields, repeat, read, note: "" },
        customer: { name, mail, phone, reminders: true },
        hold: draft.hold!.key,
        ...(draft.coupon && { coupon: draft.coupon.code }),
        ...(nowMinor > 0 && { cardToken: w.hogar.standins!.cards.tokenFor(testCards[0].number)! }),
      },
      visitor,
    );
    if (!result.ok) return (refused(result.problem), null);
    const paid = one<{ total: number; deposit: number }>(
      w.hogar,
      "SELECT total_minor AS total, deposit_minor AS deposit FROM jobs ORDER BY id DESC LIMIT 1",
    );
    // Never more than the last button said.
    expect(paid.total).toBeLessThanOrEqual(read.totalMinor);
    expect(paid.deposit).toBeLessThanOrEqual(nowMinor);
    return "booked";
  };
  return { set, press, step: () => draft.step, said: () => said };
}

const question = JSON.stringify([{ id: "dog", words: "Is there a dog?", kind: "yes-no", required: true }]);
const allServices = (change: string) => `UPDATE services SET ${change}`;
const sweepOnly = (change: string) => `UPDATE services SET ${change} WHERE code = 'SW'`;
const changes: Record<string, string> = {
  "a higher price": sweepOnly("price_minor = price_minor + 2000"),
  "a lower price": sweepOnly("price_minor = 100"),
  "a price on quote": sweepOnly("price_kind = 'quote', deposit_kind = 'none'"),
  "a price that is not shown": sweepOnly("shows_price = 0"),
  "a deposit": sweepOnly("deposit_kind = 'percent', deposit_value = 2500"),
  "all of it as a deposit": sweepOnly("deposit_kind = 'full'"),
  "stricter terms": sweepOnly(
    "late_hours = 72, late_fee_kind = 'percent', late_fee_value = 10000, no_access_minor = 5000",
  ),
  "a question": sweepOnly(`questions = '${question}'`),
  "a question of everybody": `UPDATE front_door SET fields = '${question}'`,
  "own terms": "UPDATE business SET terms = 'Pets stay outside.'",
  "less time to move and cancel": "UPDATE business SET move_hours = 48, cancel_hours = 48",
  "a service that is hidden": sweepOnly("hidden = 1"),
  "a service that is archived": sweepOnly("active = 0"),
  "nothing offered any more": allServices("active = 0"),
  "a coupon that has ended": "UPDATE coupons SET active = 0",
  "no repeats": allServices("repeats = '[]'"),
  "longer work": sweepOnly("minutes = 110"),
  "work of two days": sweepOnly("days = 2, repeats = '[]'"),
  "a crew of two": sweepOnly("crew = 2"),
  "a crew that nobody has": sweepOnly("crew = 9"),
  "several seats": sweepOnly("seats = 4, work_place = 'ours', repeats = '[]'"),
  "another place": sweepOnly("work_place = 'ours'"),
  "times that are agreed in person": sweepOnly("capacity = 'ask'"),
  "more notice": "UPDATE business SET notice_minutes = 4 * 1440",
  "no windows": "DELETE FROM pattern_parts",
  "a zone that costs more": "UPDATE zones SET surcharge_minor = 1500, smallest_order_minor = 20000",
  "a zone that is gone": "UPDATE zones SET active = 0",
  "a skill that nobody has": "DELETE FROM technician_skills",
};

describe.each(Object.keys(changes))("with %s between two steps", (name) => {
  it.each(steps.slice(1))(
    "before %s: a booking, or a sentence that says why not, and never more than was read",
    (step) => {
      const c = customer();
      let end: "booked" | "nothing" | null = null;
      let presses = 0;
      let changed = false;
      for (; end === null && presses < mostPresses; presses++) {
        if (!changed && c.step() === step) {
          c.set(changes[name]!);
          changed = true;
        }
        end = c.press();
      }
      expect([changed, end ?? c.said()]).toEqual([true, expect.any(String)]);
    },
  );
});

it("a photo that arrives late goes where it belongs, and takes nothing back that was chosen since", () => {
  const items: Draft["items"] = [
    { serviceId: 1, quantity: 2, answers: { note: "x" }, extras: [] },
    { serviceId: 2, quantity: 1, answers: {}, extras: [] },
  ];
  const draft: Draft = { ...emptyDraft, items, note: "typed since" };
  expect(withPhoto(draft, "2 flue", "token")).toEqual({
    ...draft,
    items: [items[0], { ...items[1], answers: { flue: ["token"] } }],
  });
  expect(withPhoto(draft, "photos", "token")).toEqual({ ...draft, photos: ["token"] });
  expect(withPhoto(draft, "3 flue", "token")).toEqual(draft);
});

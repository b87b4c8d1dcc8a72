import { commonRepeats, everyWords } from "@/core/repeats/rule";
import type { Problem } from "@/core/problems";
import type { Business, ServicesAt } from "./data";
import { type Chosen, chosenOf, type Draft, priceOf, type Step, steps, wishable } from "./draft";

/** Entries by the step on which they are typed. */
const stepsOf: readonly (readonly [Step, readonly string[]])[] = [
  ["where", ["/addressId"]],
  ["what", ["/items", "/note", "/photos", "/repeat", "/technicianId"]],
  ["when", ["/date", "/from", "/to"]],
  ["who", ["/customer", "/fields"]],
  ["pay", ["/coupon", "/cardToken"]],
];
/** Entries whose sentence stands beside them; of all others it stands on top of the page. */
const besideThem: Record<Step, RegExp> = {
  where: /^$/,
  what: /^\/(note|photos|items)$/,
  when: /^$/,
  who: /^\/(customer\/(name|mail|phone)|fields\/)/,
  pay: /^\/(coupon|cardToken)$/,
};

/** What of a refusal is said on top of a step: all that does not stand beside an entry there. */
export const saidOnTop = ({ fields, sentence }: Problem, step: Step): string[] =>
  fields
    ? [...new Set(Object.entries(fields).flatMap(([at, words]) => (besideThem[step].test(at) ? [] : [words])))]
    : [sentence];

/** Where somebody goes on after a refusal, with what is no longer true taken away. What they typed stays. */
export function afterRefusal({ code, fields = {} }: Problem, draft: Draft): Partial<Draft> {
  if (code === "window-gone" || code === "hold-expired") return { step: "when", offer: null, hold: null };
  if (code === "outside-zones") return { step: "where", offer: null };
  if (code === "service-not-offered") return { step: "what" };
  const at = (of: string) => Object.keys(fields).some((field) => field.startsWith(of));
  const coupon = at("/coupon") ? { coupon: null } : {};
  const [step] = stepsOf.find(([, entries]) => entries.some(at)) ?? [draft.step];
  // Nobody is led on by what is wrong.
  return { ...coupon, step: steps.indexOf(step) < steps.indexOf(draft.step) ? step : draft.step };
}

/**
 * A draft as it can be gone on with, now that the catalogue is another: what is gone is taken off, with a sentence for each.
 * What was typed for what is still there stays. `before`: the catalogue that was shown last, for names.
 */
export function upToDate(
  draft: Draft,
  at: ServicesAt,
  business: Business,
  before: ServicesAt | null,
): { draft: Draft; said: string[] } {
  const said: string[] = [];
  const gone = draft.items.filter(({ serviceId }) => !at.services.some(({ id }) => id === serviceId));
  for (const { serviceId } of gone) {
    const name = before?.services.find(({ id }) => id === serviceId)?.name;
    said.push(`${name ?? "Something you had chosen"} is not offered here: it is taken off.`);
  }
  const items = chosenOf(draft, at).map((item) => withoutGone(item, said));
  const chosen = chosenOf({ ...draft, items }, at);
  let next: Draft = { ...draft, items };
  const { repeat } = draft;
  if (
    repeat &&
    chosen.length > 0 &&
    !commonRepeats(chosen.map(({ service }) => service.repeats)).some(
      (one) => one.every === repeat.every && one.unit === repeat.unit,
    )
  ) {
    said.push(`It cannot come again ${everyWords(repeat)} any more: it is booked once, unless you choose otherwise.`);
    next = { ...next, repeat: null };
  }
  if (
    draft.technicianId !== null &&
    chosen.length > 0 &&
    !wishable(chosen).some(({ id }) => id === draft.technicianId)
  ) {
    said.push("The person you wished for does not do this any more.");
    next = { ...next, technicianId: null };
  }
  if (draft.atDoor && !business.paysAtDoor) {
    said.push("Paying at the door is not possible any more: you get an invoice.");
    next = { ...next, atDoor: false };
  }
  if (gone.length > 0 && steps.indexOf(draft.step) > 1) next = { ...next, step: "what", offer: null };
  // A question that came since is asked before anybody goes on.
  const priced = priceOf(chosen, at, { coupon: null, onOurWayBp: 0 });
  const open = priced?.items.some(({ problems }) => Object.keys(problems).length > 0) ?? false;
  if (open && steps.indexOf(draft.step) > 1) {
    if (gone.length === 0) said.push("Something is asked that was not asked before: look at what you have chosen.");
    next = { ...next, step: "what" };
  }
  return { draft: next, said };
}

/** An item without extras and answers that are not there any more, and no more of it than there can be. */
function withoutGone({ service, ...item }: Chosen, said: string[]): Draft["items"][number] {
  const { questions, extras } = service.ordered;
  const kept = item.extras.flatMap(({ id, quantity }) => {
    const extra = extras.find((one) => Number(one.id) === id);
    return extra ? [{ id, quantity: Math.min(quantity, extra.most) }] : [];
  });
  if (kept.length < item.extras.length)
    said.push(`An extra of ${service.name} is not offered any more: it is taken off.`);
  const most = service.seats || item.quantity;
  if (item.quantity > most) said.push(`${service.name} has ${most} seats at a time.`);
  return {
    ...item,
    quantity: Math.min(item.quantity, most),
    extras: kept,
    answers: Object.fromEntries(
      Object.entries(item.answers).filter(([id]) => questions.some((question) => question.id === id)),
    ),
  };
}

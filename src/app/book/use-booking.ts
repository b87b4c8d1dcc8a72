"use client";
import { ask, change } from "@/api/client";
import { mayPayAll, paidNow } from "@/core/catalogue/baskets";
import { priceOfLines } from "@/core/catalogue/order";
import { pointsUsable, pointsWorth } from "@/core/money/points";
import type { Problem } from "@/core/problems";
import { useView } from "@/ui/use-view";
import { useEffect, useState } from "react";
import type { Business } from "./data";
import { chosenOf, priceOf, type Step, useDraft } from "./draft";

export interface Visit {
  business: Business;
  /** Of the service whose own link somebody came by. */
  slug: string | null;
  source: string | null;
  preview: boolean;
}

/** What happens at the front door, whatever it looks like: what is typed, what it costs, and each step's question to the server. */
export function useBooking({ business, slug, source, preview }: Visit) {
  const { draft, ready, change: set, forget } = useDraft(preview);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const [lost, setLost] = useState(0);
  /** How often somebody has tried to go on with something missing. */
  const [tried, setTried] = useState(0);
  const [cardToken, setCardToken] = useState<string | null>(null);
  const { data: at, problem: atProblem } = useView(
    "services-at",
    draft.address ? { addressId: draft.address.id, slug } : null,
  );
  const chosen = chosenOf(draft, at);
  const reduced = { coupon: draft.coupon, onOurWayBp: draft.offer?.onOurWay ? business.onOurWayBp : 0 };
  const unreduced = priceOf(chosen, at, reduced);
  // Whoever comes by their link may have points: as many as this order takes.
  const { data: loyalty } = useView("my-points", draft.by ? {} : null, draft.by ?? undefined);
  const usable =
    loyalty?.rules && unreduced ? pointsUsable(loyalty.balance, priceOfLines(unreduced.lines), loyalty.rules) : 0;
  const points = usable > 0 ? { used: usable, worthMinor: pointsWorth(usable, loyalty!.rules!) } : null;
  const usesPoints = draft.usePoints && points !== null;
  const priced = usesPoints ? priceOf(chosen, at, { ...reduced, points }) : unreduced;
  // A price that is not shown is not known here before the window is kept.
  const order = priced && {
    ...priced,
    ...(!usesPoints && chosen.some(({ service }) => !service.showsPrice) && draft.hold?.price),
  };
  const asked =
    draft.address && chosen.length
      ? { addressId: draft.address.id, items: draft.items, technicianId: draft.technicianId, slug }
      : null;
  const payAll = draft.payAll && business.takesCards && mayPayAll(chosen);
  const deposit = order && business.takesCards ? paidNow(order, payAll) : 0;
  const go = (step: Step) => {
    setProblem(null);
    set({ step });
  };
  // The link somebody came by first is where they come from.
  useEffect(() => {
    if (ready && source && !draft.source) set({ source });
  }, [ready, source, draft.source, set]);
  // Whoever comes by a service's own link has chosen it already.
  const linked = at?.services.find((s) => slug !== null && s.slug === slug)?.id ?? null;
  useEffect(() => {
    if (linked !== null && draft.items.length === 0)
      set({ items: [{ serviceId: linked, quantity: 1, answers: {}, extras: [] }] });
  }, [linked, draft.items.length, set]);

  const keep = async () => {
    if (!asked || !draft.offer) return;
    if (preview) return set({ step: "who" });
    setBusy(true);
    const { date, from, to } = draft.offer;
    const result = await change(
      "hold-offer",
      {
        ...asked,
        date,
        from,
        to,
        ...(draft.hold && { instead: draft.hold.key }),
      },
      draft.by ?? undefined,
    );
    setBusy(false);
    if (result.ok) {
      const { onOurWay, ...hold } = result.value;
      setProblem(null);
      return set({ hold, offer: { ...draft.offer, onOurWay }, step: "who" });
    }
    setProblem(result.problem);
    if (result.problem.code === "window-gone") backToWindows();
  };

  /** The window is gone: what is free now is asked again. */
  const backToWindows = () => {
    setLost((n) => n + 1);
    set({ step: "when", offer: null, hold: null });
  };

  /** What cannot be right is said before anybody types a card. */
  const checkWho = async () => {
    setBusy(true);
    const { name, mail, phone, reminders, offers, fields } = draft;
    const result = await ask("check-booker", { customer: { name, mail, phone, reminders, offers }, fields });
    setBusy(false);
    if (result.ok) go("pay");
    else setProblem(result.problem);
  };

  const book = async () => {
    if (!asked || !draft.offer || preview) return;
    setBusy(true);
    const { date, from, to } = draft.offer;
    const { name, mail, phone, reminders, offers, note, photos, fields, repeat, atDoor } = draft;
    const result = await change(
      "book",
      {
        ...asked,
        date,
        from,
        to,
        note,
        photos,
        fields,
        repeat,
        atDoor,
        payAll,
        source: draft.source,
        ...(draft.invite && { invite: draft.invite }),
        customer: { name, mail, phone, reminders, offers },
        ...(draft.hold && { hold: draft.hold.key }),
        ...(draft.coupon && { coupon: draft.coupon.code }),
        ...(usesPoints && { usePoints: true }),
        ...(order && { shownMinor: order.totalMinor }),
        ...(deposit > 0 && cardToken && { cardToken, keepCard: draft.keepCard }),
      },
      draft.by ?? undefined,
    );
    if (result.ok) {
      forget();
      // The owner's own address takes the place of the page that this may be a frame of.
      if (business.doneAddress && window.parent !== window && window.open(business.doneAddress, "_top")) return;
      return window.location.assign(business.doneAddress || `/my/${result.value.link}?booked`);
    }
    setBusy(false);
    setProblem(result.problem);
    const wrongAt = (...starts: string[]) =>
      Object.keys(result.problem.fields ?? {}).some((field) => starts.some((start) => field.startsWith(start)));
    if (result.problem.code === "window-gone" || result.problem.code === "price-changed") backToWindows();
    else if (wrongAt("/items", "/note", "/photos", "/repeat")) set({ step: "what" });
    else if (wrongAt("/customer", "/fields")) set({ step: "who" });
  };

  return {
    draft,
    ready,
    set,
    at,
    atProblem,
    chosen,
    order,
    points,
    asked,
    payAll,
    deposit,
    problem,
    forgetProblem: () => setProblem(null),
    wrong: (pointer: string) => problem?.fields?.[pointer],
    busy,
    lost,
    tried,
    somethingMissing: () => setTried(tried + 1),
    cardToken,
    setCardToken,
    go,
    keep,
    checkWho,
    book,
  };
}

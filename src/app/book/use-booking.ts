"use client";
import { ask, change } from "@/api/client";
import { agreementOf } from "@/core/catalogue/agreement";
import { mayPayAll, paidNow } from "@/core/catalogue/baskets";
import { priceOfLines } from "@/core/catalogue/order";
import { pointsUsable, pointsWorth } from "@/core/money/points";
import type { Problem } from "@/core/problems";
import { useSending } from "@/ui/uploads";
import { useAgain } from "@/ui/use-again";
import { useView } from "@/ui/use-view";
import { useEffect, useRef, useState } from "react";
import type { Business, ServicesAt } from "./data";
import { chosenOf, priceOf, reachable, type Step, withPhoto } from "./draft";
import { afterRefusal, upToDate } from "./up-to-date";
import { useDraft } from "./use-draft";
import { useStepHistory } from "./use-step-history";

export interface Visit {
  business: Business;
  /** Of the service whose own link somebody came by. */
  slug: string | null;
  source: string | null;
  preview: boolean;
}

/** What is asked of the server on the way: done again where there was no connection. */
type Asking = "keep" | "checkWho" | "book";

/** What happens at the front door, whatever it looks like: what is typed, what it costs, and each step's question to the server. */
export function useBooking({ business: asOpened, slug, source, preview }: Visit) {
  const { draft, ready, change: set, forget } = useDraft(preview);
  const uploads = useSending((place, token) => set((now) => withPhoto(now, place, token)));
  const [problem, setProblem] = useState<Problem | null>(null);
  /** What has changed since it was chosen. */
  const [changed, setChanged] = useState<string[]>([]);
  const [failed, setFailed] = useState<Asking | null>(null);
  const [busy, setBusy] = useState(false);
  const [stale, setStale] = useState(false);
  const [lost, setLost] = useState(0);
  /** How often somebody has tried to go on with something missing. */
  const [tried, setTried] = useState(0);
  const [cardToken, setCardToken] = useState<string | null>(null);
  /** Read again since the page was opened. */
  const [readSince, setReadSince] = useState<Business | null>(null);
  const business = readSince ?? asOpened;
  const {
    data: at,
    problem: atProblem,
    refresh,
  } = useView("services-at", draft.address ? { addressId: draft.address.id, slug } : null);
  const chosen = chosenOf(draft, at);
  const reduced = { coupon: draft.coupon, onOurWayBp: draft.offer?.onOurWay ? business.onOurWayBp : 0 };
  const unreduced = priceOf(chosen, at, reduced);
  // Whoever comes by their link may have points: as many as this order takes.
  const { data: loyalty, refresh: refreshPoints } = useView("my-points", draft.by ? {} : null, draft.by ?? undefined);
  const usable =
    loyalty?.rules && unreduced ? pointsUsable(loyalty.balance, priceOfLines(unreduced.lines), loyalty.rules) : 0;
  const points = usable > 0 ? { used: usable, worthMinor: pointsWorth(usable, loyalty!.rules!) } : null;
  const usesPoints = draft.usePoints && points !== null;
  const priced = usesPoints ? priceOf(chosen, at, { ...reduced, points }) : unreduced;
  // A price that is not shown is not known here before the window is kept.
  const hidden = chosen.some(({ service }) => !service.showsPrice);
  const order = priced && { ...priced, ...(!usesPoints && hidden && draft.hold?.price) };
  const asked =
    draft.address && chosen.length
      ? { addressId: draft.address.id, items: draft.items, technicianId: draft.technicianId, slug }
      : null;
  const payAll = draft.payAll && business.takesCards && mayPayAll(chosen);
  const deposit = order && business.takesCards ? paidNow(order, payAll) : 0;
  const agreement =
    order &&
    agreementOf(business, {
      items: chosen.map(({ service }, i) => ({
        ...service.terms,
        name: service.name,
        totalMinor: (hidden && draft.hold?.price?.itemTotals[i]) || order.items[i]!.totalMinor,
      })),
      totalMinor: order.totalMinor,
      nowMinor: deposit,
    });
  // Nothing is pressed between a refusal and the page that says what counts now.
  useEffect(() => setStale(false), [at, atProblem]);
  // What is chosen follows the catalogue: what is gone is taken off, and said.
  const last = useRef<ServicesAt | null>(null);
  useEffect(() => {
    if (!ready || !at || at === last.current) return;
    const { draft: now, said } = upToDate(draft, at, business, last.current);
    last.current = at;
    if (said.length === 0) return;
    setChanged(said);
    if (now.step !== draft.step) setTried((n) => n + 1);
    set(now);
  }, [ready, at, business, draft, set]);
  useStepHistory(draft.step, !ready || preview, (step) => {
    setProblem(null);
    set((now) => ({ step: reachable(now, step) }));
  });
  const go = (step: Step) => {
    setProblem(null);
    setChanged([]);
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

  /** What has been refused is said where the customer is, and the page is brought up to date. */
  const refused = async (asking: Asking, refusal: Problem) => {
    setProblem(refusal);
    setFailed(refusal.code === "offline" ? asking : null);
    if (refusal.code === "offline") return;
    if (refusal.code === "window-gone") setLost((n) => n + 1);
    set(afterRefusal(refusal, draft));
    if (preview) return;
    refreshPoints();
    const door = await ask("front-door", {});
    if (door.ok) setReadSince(door.value);
    setStale(draft.address !== null);
    refresh();
    // A price that is not shown is told with the window that is kept.
    if (refusal.code === "terms-changed" && hidden) await hold();
  };

  const hold = async (): Promise<Problem | null> => {
    if (!asked || !draft.offer) return null;
    const { date, from, to } = draft.offer;
    const result = await change(
      "hold-offer",
      { ...asked, date, from, to, ...(draft.hold && { instead: draft.hold.key }) },
      draft.by ?? undefined,
    );
    if (!result.ok) return result.problem;
    const { onOurWay, ...kept } = result.value;
    set((now) => ({ hold: kept, offer: now.offer && { ...now.offer, onOurWay } }));
    return null;
  };

  /** One question to the server at a time; what it refuses is said. */
  const asking = async (what: Asking, question: () => Promise<Problem | null>) => {
    setBusy(true);
    const refusal = await question();
    setBusy(false);
    if (refusal) return refused(what, refusal);
    setProblem(null);
    setFailed(null);
    setChanged([]);
  };

  const keep = async () => {
    if (!asked || !draft.offer) return;
    if (preview) return set({ step: "who" });
    await asking("keep", async () => {
      const refusal = await hold();
      if (!refusal) set({ step: "who" });
      return refusal;
    });
  };

  /** What cannot be right is said before anybody types a card. */
  const checkWho = () =>
    asking("checkWho", async () => {
      const { name, mail, phone, reminders, offers, fields } = draft;
      const result = await ask("check-booker", { customer: { name, mail, phone, reminders, offers }, fields });
      if (!result.ok) return result.problem;
      set({ step: "pay" });
      return null;
    });

  const book = async () => {
    if (!asked || !draft.offer || preview) return;
    const { date, from, to } = draft.offer;
    const { name, mail, phone, reminders, offers, note, photos, fields, repeat, atDoor } = draft;
    await asking("book", async () => {
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
          ...(agreement && { read: agreement }),
          ...(deposit > 0 && cardToken && { cardToken, keepCard: draft.keepCard }),
        },
        draft.by ?? undefined,
      );
      if (!result.ok) return result.problem;
      forget();
      // The owner's own address takes the place of the page that this may be a frame of.
      const isGone =
        business.doneAddress && window.parent !== window && window.open(business.doneAddress, "_top") !== null;
      if (!isGone) window.location.assign(business.doneAddress || `/my/${result.value.link}?booked`);
      // Nothing more is pressed while the next page comes.
      return new Promise<null>(() => {});
    });
  };
  const askings: Record<Asking, () => unknown> = { keep, checkWho, book };
  const again = failed === null || busy ? null : () => void askings[failed]();
  useAgain(again);

  return {
    draft,
    ready,
    business,
    set,
    at,
    atProblem,
    chosen,
    order,
    agreement,
    points,
    asked,
    payAll,
    deposit,
    uploads,
    problem,
    changed,
    /** Does what failed without a connection again. */
    again,
    forgetProblem: () => setProblem(null),
    wrong: (pointer: string) => problem?.fields?.[pointer],
    busy: busy || stale,
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

"use client";
import ArrowBack from "@mui/icons-material/ArrowBack";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useEffect, useRef, useState } from "react";
import { change, type ViewOutput } from "@/api/client";
import { priceOrder } from "@/core/catalogue/order";
import { moneyWords } from "@/core/money/amounts";
import type { Problem } from "@/core/problems";
import { daysWords, dayWords, durationWords, windowIn } from "@/core/time/words";
import { Mark } from "@/ui/arch";
import { imageAddress } from "@/ui/image-field";
import { ink } from "@/ui/palette";
import { useView } from "@/ui/use-view";
import { steps, useDraft, type Step } from "./draft";
import { Pay } from "./pay";
import { OrderForm } from "@/ui/order-form";
import { What } from "./what";
import { Wish } from "./wish";
import { When } from "./when";
import { Where } from "./where";
import { Who } from "./who";

export type Business = ViewOutput<"front-door">;

/** Where, what, when, who, pay: one question at a time, and a summary that follows. */
export function FrontDoor({ business, slug, source }: { business: Business; slug: string | null; source: string | null }) {
  const { draft, ready, change: set, forget } = useDraft();
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const [lost, setLost] = useState(0);
  const [cardToken, setCardToken] = useState<string | null>(null);
  const { data: at, problem: atProblem } = useView("services-at", draft.address ? { addressId: draft.address.id, slug } : null);
  const title = useRef<HTMLHeadingElement>(null);

  const service = at?.services.find((s) => s.id === draft.serviceId) ?? null;
  const order = service && at?.zone ? priceOrder({ service: service.ordered, answers: draft.answers, extras: draft.extras.map((x) => ({ id: String(x.id), quantity: x.quantity })), zone: at.zone, pricesIncludeTax: at.pricesIncludeTax, coupon: draft.coupon }) : null;
  const asked = draft.address && draft.serviceId ? { addressId: draft.address.id, serviceId: draft.serviceId, answers: draft.answers, extras: draft.extras, technicianId: draft.technicianId } : null;
  const [tried, setTried] = useState(false);
  const go = (step: Step) => (setProblem(null), set({ step }));
  const here = steps.indexOf(draft.step);

  // Whoever comes by a service's own link has chosen it already.
  const linked = at?.services.find((s) => slug !== null && s.slug === slug)?.id ?? null;
  // The link somebody came by first is where they come from.
  useEffect(() => {
    if (ready && source && !draft.source) set({ source });
  }, [ready, source, draft.source, set]);
  useEffect(() => {
    if (linked !== null && draft.serviceId === null) set({ serviceId: linked });
  }, [linked, draft.serviceId, set]);

  useEffect(() => {
    if (!ready) return;
    title.current?.focus();
    window.scrollTo(0, 0);
  }, [draft.step, ready]);

  const keep = async () => {
    if (!asked || !draft.offer) return;
    setBusy(true);
    const { date, from, to } = draft.offer;
    const result = await change("hold-offer", { ...asked, date, from, to, ...(draft.hold && { instead: draft.hold.key }) });
    setBusy(false);
    if (result.ok) return setProblem(null), set({ hold: result.value, step: "who" });
    setProblem(result.problem);
    if (result.problem.code === "window-gone") backToWindows();
  };

  /** The window is gone: what is free now is asked again. */
  const backToWindows = () => {
    setLost((n) => n + 1);
    set({ step: "when", offer: null, hold: null });
  };

  const book = async () => {
    if (!asked || !draft.offer) return;
    setBusy(true);
    const { date, from, to } = draft.offer;
    const { name, mail, phone, reminders, note } = draft;
    const result = await change("book", { ...asked, date, from, to, ...(draft.hold && { hold: draft.hold.key }), customer: { name, mail, phone, reminders }, note, payAll, ...(draft.coupon && { coupon: draft.coupon.code }), source: draft.source, ...(cardToken && { cardToken }) });
    if (result.ok) {
      forget();
      return window.location.assign(`/my/${result.value.link}`);
    }
    setBusy(false);
    setProblem(result.problem);
    if (result.problem.code === "window-gone") backToWindows();
    else if (result.problem.fields && Object.keys(result.problem.fields).some((f) => f.startsWith("/customer") || f === "/note")) set({ step: "who" });
    else if (result.problem.fields && Object.keys(result.problem.fields).some((f) => f.startsWith("/answers"))) set({ step: "what" });
  };

  const wrong = (pointer: string) => problem?.fields?.[pointer];
  const onQuote = service?.priceKind === "quote";
  const payAll = draft.payAll && !!service?.mayPayAll;
  const deposit = payAll ? (order?.totalMinor ?? 0) : (order?.depositMinor ?? 0);
  const open = Object.keys(order?.problems ?? {}).length;
  const buttons: Record<Step, { words: string; ready: boolean; act: () => void }> = {
    where: { words: "Go on", ready: !!at?.zone, act: () => go("what") },
    what: { words: "Choose a time", ready: !!service, act: () => (open ? setTried(true) : go("when")) },
    when: { words: draft.offer ? `Keep ${windowIn(draft.offer.from, draft.offer.to, business.timeZone)} on ${dayWords(draft.offer.date).split(" ")[0]}` : "Choose a window", ready: !!draft.offer, act: () => void keep() },
    who: { words: "Go on", ready: !!(draft.name.trim() && draft.mail.trim() && draft.phone.trim()), act: () => go("pay") },
    pay: { words: deposit ? `Pay ${moneyWords(deposit, business.currency)} and book` : "Book", ready: !deposit || !!cardToken, act: () => void book() },
  };
  const button = buttons[draft.step];
  const titles: Record<Step, string> = { where: "Where shall we come?", what: "What can we do for you?", when: "When shall we come?", who: "Who are you?", pay: payAll ? "Paying now" : deposit ? "The deposit" : "Is everything right?" };

  return (
    <Box component="main" sx={{ maxWidth: 620, mx: "auto", minHeight: "100dvh", display: "flex", flexDirection: "column", fontSize: 17, "& .MuiInputBase-root, & .MuiTypography-body1": { fontSize: 17 } }}>
      <Box sx={{ flex: 1, px: 5, pt: 4, pb: 6 }}>
        <Box component="header" sx={{ display: "flex", alignItems: "center", gap: 3, mb: 4 }}>
          {business.mark ? <Box component="img" src={imageAddress(business.mark)} alt="" sx={{ height: 34, maxWidth: 110, objectFit: "contain" }} /> : <Mark size={26} />}
          <Box className="titles" sx={{ fontWeight: 650 }}>{business.name}</Box>
        </Box>
        <Box component="nav" aria-label="Steps" sx={{ display: "flex", gap: 2, mb: 5 }}>
          {steps.map((step, i) => (
            <ButtonBase key={step} disabled={i >= here} onClick={() => go(step)} aria-current={i === here ? "step" : undefined}
              sx={{ flex: 1, height: 34, borderRadius: "18px 18px 4px 4px", fontSize: 14.5, fontWeight: i === here ? 700 : 400, border: `1.5px solid ${i <= here ? ink.pine : ink.line}`, bgcolor: i < here ? ink.pine : "#fff", color: i < here ? ink.paper : i === here ? ink.ink : ink.ash }}>
              {step}
            </ButtonBase>
          ))}
        </Box>
        <Typography variant="h1" ref={title} tabIndex={-1} sx={{ outline: "none !important", mb: 2 }}>{titles[draft.step]}</Typography>
        {problem && !problem.fields && <Alert severity="warning" role="alert" sx={{ mb: 3, fontSize: 16 }}>{problem.sentence}</Alert>}
        {draft.step === "where" && <Where draft={draft} at={at} problem={atProblem} business={business} onAddress={(address) => set({ address, offer: null, serviceId: address ? draft.serviceId : null })} />}
        {draft.step === "what" && at && <What at={at} chosen={draft.serviceId} business={business} onChoose={(serviceId) => (setTried(false), set(serviceId === draft.serviceId ? {} : { serviceId, answers: {}, extras: [], technicianId: null, coupon: null, offer: null }))}>
          {service && service.technicians.length > 0 && <Wish service={service} chosen={draft.technicianId} onChoose={(technicianId) => set({ technicianId, offer: null })} />}
          {service && order && (service.ordered.questions.length > 0 || service.ordered.extras.length > 0) && (
            <Box sx={{ px: 3, py: 4, mb: 3, bgcolor: "#fff", border: `1px solid ${ink.line}`, borderRadius: "6px" }}>
              <OrderForm questions={service.ordered.questions} extras={service.ordered.extras} answers={draft.answers} chosen={draft.extras} currency={business.currency} problems={tried ? order.problems : {}} onAnswers={(answers) => set({ answers, offer: null })} onChosen={(extras) => set({ extras, offer: null })} />
            </Box>
          )}
        </What>}
        {draft.step === "when" && asked && service && <When key={lost} asked={asked} draft={draft} asksFirst={service.asksFirst} days={service.days} business={business} onChoose={(offer) => (setProblem(null), set({ offer }))} />}
        {draft.step === "who" && <Who draft={draft} wrong={wrong} onType={set} />}
        {draft.step === "pay" && order && draft.offer && <Pay draft={draft} order={order} service={service!} payAll={payAll} onPayAll={(all) => set({ payAll: all })} onCoupon={(coupon) => set({ coupon })} business={business} wrong={wrong} onToken={setCardToken} onLapsed={() => set({ hold: null })} />}
      </Box>
      <Box component="footer" sx={{ position: "sticky", bottom: 0, bgcolor: ink.plaster, borderTop: `1px solid ${ink.line}`, px: 5, py: 4, zIndex: 2 }}>
        {service && (
          <Box sx={{ display: "flex", justifyContent: "space-between", gap: 4, mb: 1 }}>
            <Box sx={{ minWidth: 0 }}>{service.name}{service.showsMinutes && <Box component="span" sx={{ color: ink.ash }}> · {service.days > 1 ? `${service.days} days` : durationWords(order?.minutes ?? service.minutes)}</Box>}</Box>
            <Box sx={{ fontWeight: 700, whiteSpace: "nowrap" }}>{onQuote ? "price on quote" : service.showsPrice || here >= 3 ? `${service.priceKind === "from" ? "from " : ""}${moneyWords(order?.totalMinor ?? service.totalMinor, business.currency)}` : ""}</Box>
          </Box>
        )}
        {draft.offer && <Box sx={{ color: ink.ash, mb: 2 }}>{daysWords([draft.offer.date, ...draft.offer.then])}, {windowIn(draft.offer.from, draft.offer.to, business.timeZone)}</Box>}
        <Box sx={{ display: "flex", gap: 2 }}>
          {here > 0 && <Button variant="outlined" onClick={() => go(steps[here - 1]!)} aria-label="Back" sx={{ minWidth: 52, height: 52 }}><ArrowBack /></Button>}
          <Button variant="contained" fullWidth disabled={!ready || busy || !button.ready} onClick={button.act} sx={{ height: 52, fontSize: 17 }}>{busy ? "One moment…" : button.words}</Button>
        </Box>
      </Box>
    </Box>
  );
}

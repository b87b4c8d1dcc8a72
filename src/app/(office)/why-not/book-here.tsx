"use client";
import { ruleText } from "@/core/repeats/recurrence";
import { type RepeatEvery, ruleFrom } from "@/core/repeats/rule";
import type { OperationInput } from "@/api/client";
import { answerProblem, type Answers, type Question } from "@/core/catalogue/questions";
import { FormFrame } from "@/ui/form-frame";
import { Field } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { moneyWords } from "@/core/money/amounts";
import { OrderForm } from "@/ui/order-form";
import { OftenField } from "@/ui/often-field";
import { useChange } from "@/ui/use-change";
import { useKeptForm } from "@/ui/use-kept-form";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import { useRouter } from "next/navigation";

type Booking = OperationInput<"book-in-office">;

/** What was looked at: the work, what it asks, and what has been answered so far. */
export interface Asked {
  work: Pick<Booking, "addressId" | "items" | "technicianId">;
  questions: readonly Question[];
  answers: Answers;
  currency: string;
  /** For whom it is, where that is known already. */
  customer: { id: number; name: string } | null;
  onAnswers: (answers: Answers) => void;
}

interface BookHereProps {
  asked: Asked;
  window: Pick<Booking, "date" | "from" | "to">;
  /** When it would be, and what it costs. */
  words: string;
}

const who = [
  { name: "name", label: "Name", type: "text" },
  { name: "mail", label: "Email", type: "email" },
  { name: "phone", label: "Phone", type: "tel" },
] as const;

const nobodyYet = {
  name: "",
  mail: "",
  phone: "",
  reminders: false,
  note: "",
  usePoints: false,
  often: null as RepeatEvery | null,
};

/** Books an offered window for somebody on the phone: what the service asks, who it is, what we should know. What is typed stays when another window is looked at. */
export function BookHere({ asked, window, words }: BookHereProps) {
  const { work, questions, answers, currency, customer: known, onAnswers } = asked;
  const router = useRouter();
  const { data: loyalty } = useLive("customer-points", known ? { customerId: known.id } : null);
  const points = loyalty?.rules && loyalty.balance >= loyalty.rules.least ? loyalty : null;
  const { draft, set, wrong, frame, round } = useKeptForm({
    operation: "book-in-office",
    of: known ? `booking for customer ${known.id}` : "booking on the phone",
    from: nobodyYet,
    input: ({ note, name, mail, phone, reminders, usePoints }) => ({
      ...work,
      ...window,
      customer: known ? { id: known.id } : { name, mail, phone, reminders },
      note,
      ...(known && points && usePoints && { usePoints }),
    }),
    name: ({ name }) => `The booking for ${known?.name ?? name}`,
    sent: true,
    saved: ({ visitId }) =>
      void comeBack(visitId).then(() => router.push(`/board?date=${window.date}&visit=${visitId}`)),
  });
  const repeat = useChange("make-repeat");
  const comeBack = async (visitId: number) => {
    const { often } = draft;
    if (often) await repeat.send({ visitId, rule: ruleText(ruleFrom(often, window.date)) });
  };
  // What is asked may be left open on the phone; what is answered must make sense.
  const problems = Object.fromEntries(
    questions.flatMap((q) => (answers[q.id] === undefined ? [] : [[q.id, answerProblem(q, answers[q.id]) ?? ""]])),
  );
  return (
    <FormFrame
      key={round}
      {...frame}
      title={known ? `For ${known.name}` : "On the phone?"}
      note={`Book ${words}. They are told by email and text.`}
      save="Book it and tell them"
    >
      {questions.length > 0 && (
        <OrderForm
          questions={questions}
          extras={[]}
          answers={answers}
          chosen={[]}
          currency={currency}
          problems={problems}
          onAnswers={onAnswers}
          onChosen={() => {}}
        />
      )}
      {!known && (
        <>
          {who.map(({ name, label, type }) => (
            <Field
              key={name}
              label={label}
              type={type}
              autoComplete="off"
              value={draft[name]}
              onChange={(e) => set({ [name]: e.target.value })}
              wrong={wrong(`/customer/${name}`)}
            />
          ))}
        </>
      )}
      <Field
        label="What we should know"
        multiline
        minRows={2}
        value={draft.note}
        onChange={(e) => set({ note: e.target.value })}
        wrong={wrong("/note")}
      />
      {!known && (
        <FormControlLabel
          control={<Checkbox checked={draft.reminders} onChange={(e) => set({ reminders: e.target.checked })} />}
          label="They want a reminder before the visit"
        />
      )}
      {points && (
        <FormControlLabel
          control={<Checkbox checked={draft.usePoints} onChange={(e) => set({ usePoints: e.target.checked })} />}
          label={`Use their ${points.balance} points: up to ${moneyWords(points.worthMinor, currency)} less`}
        />
      )}
      <OftenField often={draft.often} onOften={(often) => set({ often })} />
    </FormFrame>
  );
}

"use client";
import { depositWhere, type Extra, priceOrder } from "@/core/catalogue/order";
import { marginOf } from "@/core/catalogue/prices";
import type { Answers } from "@/core/catalogue/questions";
import { moneyWords } from "@/core/money/amounts";
import { meanCost } from "@/core/money/pay";
import { durationWords } from "@/core/time/words";
import { whoCouldDo } from "@/core/windows/eligible";
import { type ChosenExtras, OrderForm } from "@/ui/order-form";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { ServiceDraft, SetupData } from "../data";

type Service = ServiceDraft;

/** The service as it stands in the form, answered as a customer would: price, time, people and what is left of it. */
export function TryOut({ service, data }: { service: Service; data: SetupData }) {
  const [answers, setAnswers] = useState<Answers>({});
  const [chosen, setChosen] = useState<ChosenExtras>([]);
  const extras = service.extras.flatMap(({ id, most }): Extra[] => {
    const extra = data.extras.find((x) => x.id === id);
    return extra ? [{ ...extra, id: String(id), most }] : [];
  });
  const order = priceOrder({
    items: [
      {
        // A time that customers share pays for itself when it is full.
        quantity: service.seats || 1,
        answers,
        extras: chosen.map((x) => ({ id: String(x.id), quantity: x.quantity })),
        service: {
          id: service.id ?? 0,
          name: service.name || "This service",
          priceMinor: service.priceMinor || 0,
          taxBp: service.taxBp || 0,
          deposit: depositWhere(service.deposit.kind, service.deposit.value || 0),
          minutes: service.minutes || 1,
          seats: service.seats,
          crew: service.crew || 1,
          skills: service.skills.map((s) => ({ skill: s.name, level: s.level })),
          questions: service.questions,
          extras,
        },
      },
    ],
    zone: { name: "", surchargeMinor: 0, smallestOrderMinor: 0 },
    pricesIncludeTax: data.pricesIncludeTax,
  });
  const problems = order.items[0]!.problems;
  const skillName = (skill: string) => data.skillIds.find((s) => String(s.id) === skill)?.name ?? skill;
  // Those who could come: what their hour costs, all in.
  const able = whoCouldDo(
    data.technicians.map((t) => ({
      ...t,
      skills: t.skills.map((s) => ({ skill: s.name, level: s.level, until: s.validUntil })),
    })),
    // What is not saved yet is nobody's own.
    {
      id: service.id ?? 0,
      technicians: service.technicians,
      skills: order.skills.map((s) => ({ ...s, skill: skillName(s.skill) })),
    },
    data.today,
  );
  const margin = marginOf(
    order,
    meanCost(
      able.map((t) => t.pay),
      data.business.labourCostMinor,
    ),
  );
  const amount = (minor: number) => moneyWords(minor, data.currency);
  return (
    <Box
      component="aside"
      aria-label="Try-out"
      sx={{ bgcolor: ink.plaster, p: 5, borderRadius: "6px", position: "sticky", top: 16, display: "grid", gap: 4 }}
    >
      <Typography variant="h3">
        {service.seats > 0 ? `With all ${service.seats} seats taken` : "Try it as a customer"}
      </Typography>
      <OrderForm
        questions={service.questions}
        extras={extras}
        answers={answers}
        chosen={chosen}
        currency={data.currency}
        problems={{}}
        onAnswers={setAnswers}
        onChosen={setChosen}
      />
      <Box aria-live="polite">
        {order.lines.map((line, i) => (
          <Sum
            key={i}
            name={line.quantity === 1 ? line.description : `${line.description} × ${line.quantity}`}
            value={amount(line.amountMinor)}
          />
        ))}
        <Sum name="Total" value={amount(order.totalMinor)} strong />
        <Sum name="of it tax" value={amount(order.taxMinor)} />
        {order.depositMinor > 0 && <Sum name="Deposit" value={amount(order.depositMinor)} />}
        <Sum name="Time" value={`${durationWords(order.minutes)}${order.crew > 1 ? ` × ${order.crew} people` : ""}`} />
        <Sum
          name="Skills"
          value={
            order.skills.map((s) => `${skillName(s.skill)}${(s.level ?? 1) > 1 ? ` ${s.level}` : ""}`).join(", ") ||
            "none"
          }
        />
        <Sum name="Labour costs" value={amount(margin.labourMinor)} />
        {margin.materialsMinor > 0 && <Sum name="Materials cost" value={amount(margin.materialsMinor)} />}
        <Sum
          name="Left, without tax"
          value={`${amount(margin.marginMinor)}${margin.basisPoints === null ? "" : ` (${Math.round(margin.basisPoints / 100)}%)`}`}
          strong
        />
      </Box>
      {Object.keys(problems).length > 0 && (
        <Box sx={{ color: ink.ash, fontSize: 14 }}>
          {Object.keys(problems).length} {Object.keys(problems).length === 1 ? "question is" : "questions are"} still to
          be answered.
        </Box>
      )}
    </Box>
  );
}

const Sum = ({ name, value, strong }: { name: string; value: string; strong?: boolean }) => (
  <Box
    sx={{
      display: "flex",
      gap: 3,
      justifyContent: "space-between",
      py: 1,
      borderTop: `1px solid ${ink.line}`,
      fontWeight: strong ? 700 : 400,
      fontSize: 14.5,
    }}
  >
    <span>{name}</span>
    <span style={{ textAlign: "right" }}>{value}</span>
  </Box>
);

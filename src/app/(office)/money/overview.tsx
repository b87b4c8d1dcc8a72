"use client";
import type { ViewOutput } from "@/api/client";
import type { Age } from "@/core/money/ages";
import { moneyWords, sum } from "@/core/money/amounts";
import { counted } from "@/core/words";
import { dayShort } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { useLive, useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { scaleBand, scaleLinear } from "d3-scale";
import type { ReactNode } from "react";
import { PayOutTips } from "./tips";
import { CashOut } from "./cash-out";

type View = ViewOutput<"money-overview">;

/** Darker the older: read without colour too, since each says its age. */
const shades: Record<Age, string> = {
  "not due yet": "#CBD3CB",
  "1 to 7 days": "#E6D3A3",
  "8 to 30 days": "#DDA331",
  "31 to 90 days": "#C76B2B",
  "over 90 days": ink.ember,
};

/** What a bookkeeper needs first: owed by age, due in two weeks, and what needs a person. */
export function Overview({
  onAge,
  onInvoice,
  mayChange,
  children,
}: {
  onAge: (age: Age) => void;
  onInvoice: (id: number) => void;
  mayChange: boolean;
  children: ReactNode;
}) {
  const view = useShown("money-overview", {});
  const amount = (minor: number) => moneyWords(minor, view.currency);
  const n = view.declined.length + view.out.length;
  return (
    <Box sx={{ px: 6, pb: 6, overflowY: "auto", display: "grid", gap: 6, alignContent: "start" }}>
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", lg: "1fr 1fr" }, gap: 6 }}>
        <Ages view={view} onAge={onAge} />
        <Coming view={view} />
      </Box>
      <Box component="section" aria-label="Needs a person">
        <Typography variant="h2" sx={{ mb: 2 }}>
          Needs a person{n > 0 && ` · ${n}`}
        </Typography>
        {n === 0 && <Box sx={{ color: ink.ash }}>Nothing: no card was declined, and no cash is out.</Box>}
        {view.declined.map((one) => (
          <Waiting
            key={one.invoiceId}
            who={one.customer}
            what={`card declined ${one.times > 1 ? `${one.times} times` : "once"}${one.problem ? `: ${one.problem.toLowerCase()}` : ""}; invoice ${one.label}`}
            amount={amount(one.openMinor)}
          >
            <Button variant="outlined" onClick={() => onInvoice(one.invoiceId)}>
              Open the invoice
            </Button>
          </Waiting>
        ))}
        {view.out.map((one) => (
          <Waiting
            key={one.technicianId}
            who={one.technician}
            what={`${counted(one.payments.length, "payment")} taken at the door since ${dayShort(one.payments[0]!.day)}, not handed over`}
            amount={amount(sum(one.payments.map(({ minor }) => minor)))}
          >
            {mayChange && <CashOut out={one} currency={view.currency} />}
          </Waiting>
        ))}
      </Box>
      {view.tips.length > 0 && (
        <Box component="section" aria-label="Tips">
          <Typography variant="h2" sx={{ mb: 2 }}>
            Tips to pay out
          </Typography>
          {view.tips.map((one) => (
            <Waiting
              key={one.technicianId ?? 0}
              who={one.technician ?? "Everybody"}
              what="given by customers, not paid out"
              amount={amount(one.minor)}
            >
              {mayChange && <PayOutTips tips={one} currency={view.currency} />}
            </Waiting>
          ))}
        </Box>
      )}
      {children}
    </Box>
  );
}

const Waiting = ({
  who,
  what,
  amount,
  children,
}: {
  who: string;
  what: string;
  amount: string;
  children: ReactNode;
}) => (
  <Box
    role="group"
    aria-label={who}
    sx={{
      display: "flex",
      alignItems: "center",
      gap: 4,
      py: 2,
      borderTop: `1px solid ${ink.line}`,
      maxWidth: 900,
      flexWrap: "wrap",
    }}
  >
    <Box sx={{ flex: 1, minWidth: 240 }}>
      <b>{who}</b>
      <Box sx={{ color: ink.ash, fontSize: 14 }}>{what}</Box>
    </Box>
    <Box sx={{ whiteSpace: "nowrap" }}>{amount}</Box>
    <Box sx={{ width: 160, "& > button": { width: 1 } }}>{children}</Box>
  </Box>
);

/** What is owed, by how long it is due: each part opens its invoices. */
function Ages({ view, onAge }: { view: View; onAge: (age: Age) => void }) {
  const owed = sum(view.ages.map(({ minor }) => minor));
  const widthOf = scaleLinear([0, Math.max(1, owed)], [0, 100]);
  return (
    <Box component="section" aria-label="Owed, by age">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Owed, by age
      </Typography>
      <Box aria-hidden sx={{ display: "flex", height: 34, gap: "2px", bgcolor: owed ? "transparent" : ink.line }}>
        {view.ages.map(
          ({ age, minor }) =>
            minor > 0 && (
              <Box
                key={age}
                onClick={() => onAge(age)}
                sx={{ width: `${widthOf(minor)}%`, minWidth: 6, bgcolor: shades[age], cursor: "pointer" }}
              />
            ),
        )}
      </Box>
      <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1, mt: 2 }}>
        {view.ages.map(({ age, n, minor }) => (
          <ButtonBase
            key={age}
            disabled={n === 0}
            onClick={() => onAge(age)}
            sx={{
              display: "block",
              textAlign: "left",
              px: 2,
              py: 1,
              borderLeft: `5px solid ${shades[age]}`,
              opacity: n === 0 ? 0.5 : 1,
              minWidth: 104,
              fontSize: 14,
            }}
          >
            <Box component="span" sx={{ color: ink.ash, display: "block" }}>
              {age}
            </Box>
            <b>{moneyWords(minor, view.currency)}</b>
            <Box component="span" sx={{ color: ink.ash, display: "block" }}>
              {counted(n, "invoice")}
            </Box>
          </ButtonBase>
        ))}
      </Box>
    </Box>
  );
}

const chart = { width: 560, height: 120, foot: 20 };

/** What falls due on each of the coming days, and what runs will take. */
function Coming({ view }: { view: View }) {
  const { data: planned } = useLive("collection-plan", {});
  const coming = view.coming.map((one) => ({
    ...one,
    collectedMinor: planned?.find(({ date }) => date === one.date)?.minor ?? 0,
  }));
  const x = scaleBand(
    view.coming.map(({ date }) => date),
    [0, chart.width],
  ).padding(0.3);
  const top = Math.max(1, ...coming.flatMap(({ minor, collectedMinor }) => [minor, collectedMinor]));
  const y = scaleLinear([0, top], [chart.height - chart.foot, 16]);
  const total = sum(view.coming.map(({ minor }) => minor));
  return (
    <Box component="section" aria-label="Due in two weeks">
      <Typography variant="h2" sx={{ mb: 2 }}>
        Due in two weeks{" "}
        <Box component="span" sx={{ color: ink.ash, fontSize: 15, fontWeight: 400 }}>
          {moneyWords(total, view.currency)}
        </Box>
      </Typography>
      <svg viewBox={`0 0 ${chart.width} ${chart.height}`} width="100%" role="list" aria-label="Due by day">
        <line x1={0} x2={chart.width} y1={chart.height - chart.foot} y2={chart.height - chart.foot} stroke={ink.line} />
        {coming.map(({ date, minor, collectedMinor }) => {
          const amount = (value: number) => moneyWords(value, view.currency);
          const words = `${dayShort(date)}: ${amount(minor)} due${collectedMinor ? `, ${amount(collectedMinor)} collected by itself` : ""}`;
          return (
            <g key={date} role="listitem" aria-label={words}>
              <title>{words}</title>
              <rect
                x={x(date)}
                y={y(minor)}
                width={x.bandwidth()}
                height={chart.height - chart.foot - y(minor)}
                fill="#8FA69B"
              />
              {collectedMinor > 0 && (
                <rect
                  x={x(date)! + x.bandwidth() / 2}
                  y={y(collectedMinor)}
                  width={x.bandwidth() / 2}
                  height={chart.height - chart.foot - y(collectedMinor)}
                  fill={ink.pine}
                />
              )}
              <text
                x={x(date)! + x.bandwidth() / 2}
                y={chart.height - 5}
                textAnchor="middle"
                fontSize="12.5"
                fontWeight={date === view.today ? 700 : 400}
                fill={date === view.today ? ink.ink : ink.ash}
              >
                {Number(date.slice(8))}
              </text>
            </g>
          );
        })}
      </svg>
      <Box sx={{ color: ink.ash, fontSize: 13.5 }}>
        {coming.some(({ collectedMinor }) => collectedMinor > 0) && "Dark: collected by itself. "}
        What is overdue is not in it. <LinkBox href="/money?list=to-bill">What is done and not billed yet</LinkBox>
        {view.onTheWayMinor > 0 && (
          <>
            {" · "}
            <LinkBox href="/money?list=payouts">
              {moneyWords(view.onTheWayMinor, view.currency)} on the way to the bank
            </LinkBox>
          </>
        )}
      </Box>
    </Box>
  );
}

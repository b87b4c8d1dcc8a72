"use client";
import { post } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { FormDrawer } from "@/ui/form-drawer";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { useOffice } from "../office-context";
import { Top } from "../top";
import { moneyAddress, type MoneyPart, moneyPartOf } from "./data";
import { CreditsList, InvoicesList, PaymentsList } from "./lists";
import { Overview } from "./overview";

const InvoiceSheet = dynamic(() => import("./invoice-sheet").then((m) => m.InvoiceSheet));
const InvoiceForm = dynamic(() => import("./invoice-form").then((m) => m.InvoiceForm));
const Reports = dynamic(() => import("./reports").then((m) => m.Reports));
const Collection = dynamic(() => import("./collection").then((m) => m.Collection));
const Payouts = dynamic(() => import("./payouts").then((m) => m.Payouts));
const Bank = dynamic(() => import("./bank").then((m) => m.Bank));
const ToBill = dynamic(() => import("./to-bill").then((m) => m.ToBill));

/** What is owed and what came in: where it opens, the lists, and what is to be billed. */
export function Money({ open, part }: { open: number | null; part: MoneyPart }) {
  const router = useRouter();
  const { person } = useOffice();
  const { totals, currency } = useShown("money", {});
  const [making, setMaking] = useState(false);
  const go = (to: MoneyPart, id: number | null = null) => router.push(moneyAddress(to, id), { scroll: false });
  const amount = (value: number) => moneyWords(value, currency);
  const common = { open: open !== null, onOpen: (id: number) => go(part, id), currency };
  const mayChange = person.permissions.includes("money.change");
  return (
    <>
      <Top
        title="Money"
        sum={`${amount(totals.open)} owed, of which ${amount(totals.overdue)} overdue`}
        action={
          mayChange && (
            <Button variant="contained" onClick={() => setMaking(true)}>
              New invoice
            </Button>
          )
        }
      />
      <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
        <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column" }}>
          <Tabs
            value={part.list}
            onChange={(_, list: MoneyPart["list"]) => go(moneyPartOf({ list }))}
            variant="scrollable"
            scrollButtons="auto"
            aria-label="Parts of Money"
            sx={{ px: 6, mb: 3, flex: "none" }}
          >
            <Tab value="overview" label="Overview" />
            <Tab value="invoices" label="Invoices" />
            <Tab value="to-bill" label="To bill" />
            <Tab value="collection" label="Collection" />
            <Tab value="payments" label="Payments" />
            <Tab value="credits" label="Credits" />
            <Tab value="payouts" label="Payouts" />
            <Tab value="bank" label="Bank" />
            <Tab value="reports" label="Reports" />
          </Tabs>
          {part.list === "overview" && (
            <Overview
              onAge={(age) => go({ list: "invoices", show: "open", age })}
              onInvoice={(id) => go(part, id)}
              mayChange={mayChange}
            >
              <Books totals={totals} amount={amount} />
            </Overview>
          )}
          {part.list === "invoices" && (
            <InvoicesList
              key={`${part.show} ${part.age}`}
              {...common}
              show={part.show}
              age={part.age}
              onShow={(show) => go({ ...part, show })}
              onAge={(age) => go({ ...part, age })}
            />
          )}
          {part.list === "payments" && (
            <PaymentsList
              key={part.show}
              {...common}
              show={part.show}
              onShow={(show) => go({ list: "payments", show })}
            />
          )}
          {part.list === "collection" && <Collection mayChange={mayChange} onInvoice={(id) => go(part, id)} />}
          {part.list === "payouts" && <Payouts currency={currency} mayChange={mayChange} />}
          {part.list === "bank" && (
            <Bank
              show={part.show}
              onShow={(show) => go({ list: "bank", show })}
              mayChange={mayChange}
              onInvoice={(id) => go(part, id)}
            />
          )}
          {part.list === "credits" && <CreditsList {...common} />}
          {part.list === "reports" && <Reports mayChange={mayChange} />}
          {part.list === "to-bill" && <ToBill mayChange={mayChange} onInvoice={(id) => go(part, id)} />}
        </Box>
        {open && <InvoiceSheet key={open} id={open} onClose={() => go(part)} />}
      </Box>
      {mayChange && (
        <FormDrawer open={making} label="New invoice" onClose={() => setMaking(false)}>
          <InvoiceForm
            currency={currency}
            onMade={(id) => {
              setMaking(false);
              go({ list: "invoices", show: "all", age: null }, id);
            }}
          />
        </FormDrawer>
      )}
    </>
  );
}

type Totals = ReturnType<typeof useShown<"money">>["totals"];

/** What was received, and what became of it: both come to the same. */
function Books({ totals, amount }: { totals: Totals; amount: (minor: number) => string }) {
  return (
    <Box component="section" aria-label="The books" sx={{ borderTop: `1px solid ${ink.line}`, pt: 3 }}>
      <Box sx={{ display: "flex", alignItems: "baseline", gap: 3, flexWrap: "wrap" }}>
        <span>
          <b>{amount(totals.received)}</b> received = <b>{amount(totals.applied)}</b> for invoices +{" "}
          <b>{amount(totals.refunded)}</b> refunded + <b>{amount(totals.kept)}</b> deposits and credit kept
        </span>
        <Box role="status" sx={{ color: totals.agrees ? ink.moss : ink.ember, fontWeight: 650 }}>
          {totals.agrees ? "✓ the books balance, to the cent" : `✕ ${totals.wrong.join(" ")}`}
        </Box>
        <CheckBooks />
      </Box>
    </Box>
  );
}

interface Checking {
  done: number;
  laws: number;
  broken: { law: string; what: string } | null;
  ended: boolean;
  problem: string | null;
}
const lookEveryMs = 400;

/** Looks at every row by every law of the data, elsewhere, and says the first that is broken. */
function CheckBooks() {
  const { enqueueSnackbar } = useSnackbar();
  const [state, setState] = useState<Checking | null>(null);
  const ask = (what: "begin" | "look" | "stop") => post<Checking | null>("/api/check", { what });
  const check = async () => {
    for (let said = await ask("begin"); ; said = await ask("look")) {
      if (!said.ok) {
        setState(null);
        return enqueueSnackbar(said.problem.sentence, { variant: "error" });
      }
      const { value } = said;
      if (value === null || value.ended) {
        setState(null);
        if (value?.broken)
          enqueueSnackbar(`${value.broken.law} Broken by ${value.broken.what}.`, { variant: "error", persist: true });
        else if (value?.problem) enqueueSnackbar(value.problem, { variant: "info" });
        else if (value) enqueueSnackbar(`All ${value.laws} laws of the data hold`, { variant: "success" });
        return;
      }
      setState(value);
      await new Promise((resolve) => setTimeout(resolve, lookEveryMs));
    }
  };
  if (state === null)
    return (
      <Button size="small" onClick={() => void check()}>
        Check every row
      </Button>
    );
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 2 }}>
      <LinearProgress
        variant={state.laws ? "determinate" : "indeterminate"}
        value={state.laws ? (100 * state.done) / state.laws : 0}
        aria-label="Every row is looked at"
        sx={{ width: 120 }}
      />
      <Button size="small" onClick={() => void ask("stop")}>
        Stop
      </Button>
    </Box>
  );
}

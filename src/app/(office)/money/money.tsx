"use client";
import { moneyWords } from "@/core/money/amounts";
import { useShown } from "@/ui/live";
import { ink, titleFont } from "@/ui/palette";
import Box from "@mui/material/Box";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { Top } from "../top";
import type { MoneyList } from "./data";
import { InvoicesList, PaymentsList } from "./lists";

const InvoiceSheet = dynamic(() => import("./invoice-sheet").then((m) => m.InvoiceSheet));

/** What is owed and what came in: the sums, and a list of either. */
export function Money({ open, shown }: { open: number | null; shown: MoneyList }) {
  const router = useRouter();
  const { totals, currency } = useShown("money", {});
  const go = (to: MoneyList, id: number | null) =>
    router.push(`/money?list=${to.list}&show=${to.show}${id ? `&id=${id}` : ""}`, { scroll: false });
  const amount = (value: number) => moneyWords(value, currency);
  const common = { open: open !== null, onOpen: (id: number) => go(shown, id), currency };
  return (
    <>
      <Top title="Money" sum={`${amount(totals.open)} open, of which ${amount(totals.overdue)} overdue`} />
      <Box sx={{ display: "flex", flex: 1, minHeight: 0 }}>
        <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column" }}>
          <Box sx={{ px: 6, pb: 2, display: "flex", alignItems: "flex-end", gap: 5, flexWrap: "wrap" }}>
            <Figure name="received" value={amount(totals.received)} />
            <Sign>=</Sign>
            <Figure name="applied to invoices" value={amount(totals.applied)} />
            <Sign>+</Sign>
            <Figure name="refunded" value={amount(totals.refunded)} />
            <Sign>+</Sign>
            <Figure name="deposits and credit kept" value={amount(totals.kept)} />
            <Box role="status" sx={{ pb: 0.5, color: totals.agrees ? ink.moss : ink.ember, fontWeight: 650 }}>
              {totals.agrees ? "✓ the sums agree, and with the journal" : `✕ ${totals.wrong.join(" ")}`}
            </Box>
          </Box>
          <Tabs
            value={shown.list}
            onChange={(_, list: MoneyList["list"]) => go({ list, show: "all" }, null)}
            aria-label="Lists"
            sx={{ px: 6, mb: 3 }}
          >
            <Tab value="invoices" label="Invoices" />
            <Tab value="payments" label="Payments" />
          </Tabs>
          {shown.list === "invoices" ? (
            <InvoicesList {...common} show={shown.show} onShow={(show) => go({ list: "invoices", show }, null)} />
          ) : (
            <PaymentsList {...common} show={shown.show} onShow={(show) => go({ list: "payments", show }, null)} />
          )}
        </Box>
        {open && <InvoiceSheet key={open} id={open} onClose={() => go(shown, null)} />}
      </Box>
    </>
  );
}

function Figure({ name, value }: { name: string; value: string }) {
  return (
    <Box>
      <Box sx={{ fontFamily: titleFont, fontSize: 22, fontWeight: 700, fontVariantNumeric: "normal", lineHeight: 1.2 }}>
        {value}
      </Box>
      <Box sx={{ fontSize: 13.5, color: ink.ash }}>{name}</Box>
    </Box>
  );
}

const Sign = ({ children }: { children: string }) => <Box sx={{ fontSize: 20, color: ink.ash, pb: 5 }}>{children}</Box>;

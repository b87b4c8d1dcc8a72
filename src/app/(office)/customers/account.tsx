"use client";
import { moneyWords } from "@/core/money/amounts";
import { addMonths } from "@/core/time/dates";
import { entryWords } from "@/core/money/entry-words";
import { dateWords, dayShort } from "@/core/time/words";
import { ReceiveForm } from "@/app/(office)/money/receive-form";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { channelWords } from "@/ui/message-list";
import { ink } from "@/ui/palette";
import { Fact, SheetSection } from "@/ui/side-sheet";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { useState } from "react";
import { useOffice } from "../office-context";
import { ChargeCard } from "./charge-card";

const fewest = 12;

/** A customer's account: every entry with the balance after it, and money that came. */
export function CustomerAccount({ customer }: { customer: { id: number; name: string } }) {
  const { data: account } = useLive("customer-account", { customerId: customer.id });
  const { person } = useOffice();
  const [receiving, setReceiving] = useState(false);
  const [charging, setCharging] = useState(false);
  const [all, setAll] = useState(false);
  if (!account) return null;
  const amount = (minor: number) => moneyWords(minor, account.currency);
  const shown = all ? account.entries : account.entries.slice(0, fewest);
  return (
    <SheetSection title={`Account: ${balanceWords(account.balanceMinor, amount)}`}>
      {account.entries.length > 0 && (
        <Table size="small" aria-label="Account">
          <TableHead>
            <TableRow>
              <TableCell>Day</TableCell>
              <TableCell>What</TableCell>
              <TableCell align="right">Amount</TableCell>
              <TableCell align="right">Balance</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {shown.map((entry) => (
              <TableRow key={entry.id}>
                <TableCell sx={{ whiteSpace: "nowrap" }} title={dateWords(entry.day)}>
                  {dayShort(entry.day)} {entry.day.slice(0, 4)}
                </TableCell>
                <TableCell>
                  {entry.invoiceId ? (
                    <LinkBox href={`/money?list=invoices&show=all&id=${entry.invoiceId}`} sx={{ color: ink.lake }}>
                      {entryWords(entry)}
                    </LinkBox>
                  ) : (
                    entryWords(entry)
                  )}
                  {entry.reason && <Box sx={{ color: ink.ash, fontSize: 13 }}>{entry.reason}</Box>}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                  {amount(entry.amountMinor)}
                </TableCell>
                <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
                  {amount(entry.balanceMinor)}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      <Box sx={{ display: "flex", gap: 2, mt: 2 }}>
        {account.entries.length > shown.length && (
          <Button size="small" onClick={() => setAll(true)}>
            {account.count > account.entries.length
              ? `The latest ${account.entries.length} of ${account.count}`
              : `All ${account.count}`}
          </Button>
        )}
        {account.entries.length > 0 && <Statement customerId={customer.id} today={account.today} />}
        {person.permissions.includes("money.change") && (
          <Button size="small" aria-expanded={receiving} onClick={() => setReceiving(!receiving)}>
            Record payment…
          </Button>
        )}
        {person.permissions.includes("money.change") && account.open.length > 0 && (
          <Button size="small" aria-expanded={charging} onClick={() => setCharging(!charging)}>
            Charge a card…
          </Button>
        )}
      </Box>
      {charging && <ChargeCard customerId={customer.id} account={account} onDone={() => setCharging(false)} />}
      <Box sx={{ mt: 3 }}>
        <Fact name="Terms">Pays {account.terms}</Fact>
        <Fact name="Cards">
          {account.cards.length
            ? account.cards.map(({ label, expires }) => `${label}${expires ? `, until ${expires}` : ""}`).join("; ")
            : "none on file"}
        </Fact>
        {account.promises.map(({ id, invoice, day, ended }) => (
          <Fact key={id} name="Promised">
            invoice {invoice} on {dateWords(day)}
            {ended && `, ${ended}`}
          </Fact>
        ))}
        {account.sent.map(({ id, subject, channel, state, day }) => (
          <Fact key={id} name={dayShort(day)}>
            {subject || "text"} ({channelWords(channel)}, {state})
          </Fact>
        ))}
      </Box>
      {receiving && (
        <ReceiveForm
          customerId={customer.id}
          customer={customer.name}
          currency={account.currency}
          open={account.open}
          meant={account.open.map(({ id }) => id)}
        />
      )}
    </SheetSection>
  );
}

/** The account of the last twelve months as a paper. */
const Statement = ({ customerId, today }: { customerId: number; today: string }) => (
  <Button
    size="small"
    href={`/papers/statement/${customerId}.pdf?from=${addMonths(today, -12)}&to=${today}`}
    target="_blank"
  >
    Statement, PDF
  </Button>
);

const balanceWords = (minor: number, amount: (minor: number) => string): string =>
  minor > 0 ? `owes ${amount(minor)}` : minor < 0 ? `has ${amount(-minor)} with us` : "even";

import { defineModule } from "@/kernel/module";
import { moneyEffects } from "./effects";
import { moneyJobs } from "./jobs";
import { moneyLaws } from "./laws";
import { moneyNeeds } from "./needs";
import { matchBankLine, postBankLine, reopenBankLine, saveOwnAccount, setAsideBankLine } from "./operations/bank";
import { billCustomerByHand, makeInvoice } from "./operations/billing";
import { addCard, chargeFirst, forgetCard, removeCard } from "./operations/cards";
import { handOverCash, payOutTips, takePayment } from "./operations/cash";
import { chargeInvoices, payOwed } from "./operations/charge-invoices";
import { closeBooks } from "./operations/close-books";
import { copyInvoiceLink } from "./operations/copy-invoice-link";
import {
  creditInvoiceByHand,
  invoiceAgain,
  refundPayment,
  takeBackPayment,
  undoWriteOff,
  useCredit,
  writeOff,
} from "./operations/corrections";
import { askReader, endReader, takeCard } from "./operations/door-cards";
import { waiveFee } from "./operations/late-fees";
import { splitByLink, splitInvoice } from "./operations/parts";
import { payByCard, payInvoice, takeAnotherCard, takeAnotherCardFor } from "./operations/pay-by-card";
import { payOutNow, payoutIsThere } from "./operations/payouts";
import { givePoints, saveLoyalty } from "./operations/points";
import { decideCharge } from "./operations/record-outcomes";
import { recordPayment } from "./operations/record-payment";
import { saveAccountNumbers } from "./operations/save-account-numbers";
import { bankLines } from "./views/bank-lines";
import { credits } from "./views/credits";
import { customerAccount } from "./views/customer-account";
import { invoiceChoices } from "./views/invoice-choices";
import { invoice, invoices, money } from "./views/money";
import { moneyOverview } from "./views/money-overview";
import {
  creditNotePaper,
  invoicePaper,
  myAccount,
  myCreditNote,
  myInvoice,
  receiptPaper,
  statementPaper,
} from "./views/papers";
import { payments } from "./views/payments";
import { payout, payouts } from "./views/payouts";
import { customerPoints, loyaltySetup, myPoints } from "./views/points";
import { accountNumbers, booksClosed, report } from "./views/report";
import { toBillIds, toBillView } from "./views/to-bill";

export const moneyModule = defineModule({
  name: "money",
  owns: [
    "invoices",
    "invoice_lines",
    "invoice_parts",
    "credit_notes",
    "credit_note_lines",
    "payments",
    "refunds",
    "fees",
    "disputes",
    "payouts",
    "payout_items",
    "handovers",
    "ledger_events",
    "ledger_entries",
    "ledger_chain",
    "bank_lines",
    "own_accounts",
    "account_links",
    "account_numbers",
    "cards",
    "points",
    "repeat_bills",
    "reader_asks",
    "sellers",
  ],
  operations: {
    "add-card": addCard,
    "ask-reader": askReader,
    "bill-customer": billCustomerByHand,
    "charge-card-first": chargeFirst,
    "charge-invoices": chargeInvoices,
    "close-books": closeBooks,
    "copy-invoice-link": copyInvoiceLink,
    "credit-invoice": creditInvoiceByHand,
    "decide-charge": decideCharge,
    "end-reader": endReader,
    "forget-card": forgetCard,
    "give-points": givePoints,
    "hand-over-cash": handOverCash,
    "invoice-again": invoiceAgain,
    "make-invoice": makeInvoice,
    "match-bank-line": matchBankLine,
    "pay-by-card": payByCard,
    "pay-in-parts": splitByLink,
    "pay-invoice": payInvoice,
    "pay-out-now": payOutNow,
    "pay-out-tips": payOutTips,
    "pay-owed": payOwed,
    "post-bank-line": postBankLine,
    "record-payment": recordPayment,
    "record-payout-arrived": payoutIsThere,
    "refund-payment": refundPayment,
    "remove-card": removeCard,
    "reopen-bank-line": reopenBankLine,
    "save-account-numbers": saveAccountNumbers,
    "save-loyalty": saveLoyalty,
    "save-own-account": saveOwnAccount,
    "set-aside-bank-line": setAsideBankLine,
    "split-invoice": splitInvoice,
    "take-another-card": takeAnotherCard,
    "take-another-card-for": takeAnotherCardFor,
    "take-back-payment": takeBackPayment,
    "take-card": takeCard,
    "take-payment": takePayment,
    "undo-write-off": undoWriteOff,
    "use-credit": useCredit,
    "waive-late-fee": waiveFee,
    "write-off": writeOff,
  },
  views: {
    "account-numbers": accountNumbers,
    "bank-lines": bankLines,
    "books-closed": booksClosed,
    "credit-note-paper": creditNotePaper,
    credits,
    "customer-account": customerAccount,
    "customer-points": customerPoints,
    invoice,
    "invoice-choices": invoiceChoices,
    "invoice-paper": invoicePaper,
    invoices,
    "loyalty-setup": loyaltySetup,
    money,
    "money-overview": moneyOverview,
    "my-account": myAccount,
    "my-credit-note": myCreditNote,
    "my-invoice": myInvoice,
    "my-points": myPoints,
    payments,
    payout,
    payouts,
    "receipt-paper": receiptPaper,
    report,
    "statement-paper": statementPaper,
    "to-bill": toBillView,
    "to-bill-ids": toBillIds,
  },
  effects: moneyEffects,
  jobs: moneyJobs,
  needs: moneyNeeds,
  laws: moneyLaws,
});

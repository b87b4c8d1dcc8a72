import { DateText, Id, input } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { collectInvoice, followItem, giveNotice } from "../collecting";
import { endPromise } from "../promises";

const OneInvoice = input({ invoiceId: Id });

/** The four steps of a collection, each under a key of its own: the notice, the asking (its answer comes by record-charge), what follows, the end. */
export const noticeOfCharge = defineOperation({
  name: "notice-of-charge",
  access: "system",
  input: OneInvoice,
  run: (context, { invoiceId }) => giveNotice(context, invoiceId),
});

export const collectDue = defineOperation({
  name: "collect-due",
  access: "system",
  input: OneInvoice,
  run: (context, { invoiceId }) => collectInvoice(context, invoiceId),
});

export const followCharge = defineOperation({
  name: "follow-charge",
  access: "system",
  input: OneInvoice,
  run: (context, { invoiceId }) => followItem(context, invoiceId),
});

export const endRun = defineOperation({
  name: "end-run",
  access: "system",
  input: input({ date: DateText }),
  run: ({ sql, now }, { date }) =>
    void sql("UPDATE collection_runs SET ended_at = ? WHERE run_date = ? AND ended_at IS NULL").run(now, date),
});

export const watchPromise = defineOperation({
  name: "watch-promise",
  access: "system",
  input: input({ promiseId: Id }),
  run: (context, { promiseId }) => endPromise(context, promiseId),
});

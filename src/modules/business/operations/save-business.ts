import { mostParts } from "@/core/money/instalments";
import { Refusal } from "@/core/problems";
import { visitStates } from "@/core/visits/states";
import { Id, ImageToken, input, Mail, Money, Name, OneOf, OrNull, Phone } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { daysColumn } from "@/store/columns";
import { type Static, Type } from "@sinclair/typebox";
import { Currency, PlaceSchema } from "../inputs";
import { saveSettings } from "@/kernel/settings";

const LongText = Type.String({ maxLength: 8000 });

/** What stands before the year in a number: letters, digits and what one writes between them. */
const Prefix = Type.String({
  maxLength: 12,
  pattern: "^[A-Za-z0-9./-]*$",
  patternSentence: "Letters, digits, dots, dashes and slashes.",
});

/** Words on papers of a kind, with a service or with all. */
const TextBlock = input({
  paper: OneOf(["invoice", "quote", "credit note", "receipt", "statement"]),
  place: OneOf(["before", "after"]),
  serviceId: OrNull(Id),
  words: Type.String({ minLength: 1, maxLength: 4000, pattern: "\\S", patternSentence: "Write what it says." }),
});

const TaxRate = input({
  name: Name,
  rateBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
  /** Of a rate of 0%: what it is, and why, as it stands on invoices. */
  zeroKind: Type.Optional(OneOf(["zero rated", "exempt"])),
  words: Type.Optional(Type.String({ maxLength: 200 })),
});

const SaveBusiness = input({
  name: Name,
  phone: Phone,
  mail: Mail,
  paymentDays: Type.Integer({ minimum: 0, maximum: 180 }),
  travelMarginMinutes: Type.Integer({ minimum: 0, maximum: 60 }),
  travelMarginPercent: Type.Integer({ minimum: 0, maximum: 200 }),
  windingPercent: Type.Optional(Type.Integer({ minimum: 100, maximum: 400 })),
  kmh: Type.Optional(Type.Integer({ minimum: 5, maximum: 130 })),
  labourCostMinor: Type.Optional(Money),
  mark: Type.Optional(ImageToken),
  place: Type.Optional(PlaceSchema),
  site: Type.Optional(Type.Union([Type.String({ format: "web-address", maxLength: 200 }), Type.Literal("")])),
  registration: Type.Optional(Type.String({ maxLength: 60 })),
  taxNumber: Type.Optional(Type.String({ maxLength: 60 })),
  /** Both stay as they are once work is promised or priced. */
  currency: Type.Optional(Currency),
  timeZone: Type.Optional(Type.String({ format: "time-zone" })),
  weekStart: Type.Optional(Type.Integer({ minimum: 0, maximum: 6 })),
  clockHours: Type.Optional(Type.Union([Type.Literal(12), Type.Literal(24)])),
  pricesIncludeTax: Type.Optional(Type.Boolean()),
  taxRates: Type.Optional(Type.Array(TaxRate, { maxItems: 20 })),
  terms: Type.Optional(LongText),
  quoteText: Type.Optional(LongText),
  invoiceText: Type.Optional(LongText),
  /** How invoices are numbered and when they are due; left out, it stays. */
  billing: Type.Optional(
    input({
      invoicePrefix: Prefix,
      creditPrefix: Prefix,
      bankAccount: Type.String({ maxLength: 60 }),
      exemptWords: Type.String({ maxLength: 400 }),
      paymentFrom: OneOf(["invoice", "end of month"]),
      by: OneOf(["job", "month", "hand"]),
      /** Days after it was due; null is never. */
      lateFeeDays: Type.Optional(OrNull(Type.Integer({ minimum: 1, maximum: 365 }))),
      lateFeeMinor: Type.Optional(Money),
      lateFeeBp: Type.Optional(Type.Integer({ minimum: 0, maximum: 10_000 })),
      /** What is charged where a bank takes a payment back; absent: as it is. */
      returnFeeMinor: Type.Optional(Money),
      tips: Type.Optional(Type.Boolean()),
      /** In how many monthly parts customers may pay by themselves, and from which sum on; 1 is not at all. */
      partsMost: Type.Optional(Type.Integer({ minimum: 1, maximum: mostParts })),
      partsFromMinor: Type.Optional(Money),
      /** How the first and last month of a flat price are billed, where only a part of them is agreed. */
      partMonths: Type.Optional(OneOf(["whole", "days"])),
      /** Days after a quote was sent on which somebody who has not answered is asked again. */
      quoteFollowUps: Type.Optional(
        Type.Array(Type.Integer({ minimum: 1, maximum: 365 }), { maxItems: 6, uniqueItems: true }),
      ),
      textBlocks: Type.Optional(Type.Array(TextBlock, { maxItems: 60 })),
    }),
  ),
  /** Days for which it is kept what was changed, beside who changed it and when. */
  keepChangesDays: Type.Optional(Type.Integer({ minimum: 7, maximum: 3650 })),
});
type SaveBusiness = Static<typeof SaveBusiness>;

export const saveBusiness = defineOperation({
  name: "save-business",
  access: "setup.change",
  input: SaveBusiness,
  run(context, b) {
    const { sql, business } = context;
    const fields: Record<string, string> = {};
    if (b.currency && b.currency !== business.currency && sql("SELECT 1 FROM jobs").get())
      fields["/currency"] = `Work is priced in ${business.currency} already, so the currency stays.`;
    if (
      b.timeZone &&
      b.timeZone !== business.time_zone &&
      sql(`SELECT 1 FROM visits WHERE state IN ${visitStates.sql("plan")}`).get()
    )
      fields["/timeZone"] = "Visits are promised in the time zone as it is, so it stays.";
    const twice =
      b.taxRates?.findIndex(
        (rate, i) => b.taxRates!.findIndex((r) => r.name.trim().toLowerCase() === rate.name.trim().toLowerCase()) < i,
      ) ?? -1;
    const free = b.taxRates?.flatMap(({ rateBp }, i) => (rateBp === 0 ? [i] : [])) ?? [];
    if (free[1] !== undefined)
      fields[`/taxRates/${free[1]}/rateBp`] = "There is a rate of 0% already: what it is stands on invoices.";
    if (twice >= 0) fields[`/taxRates/${twice}/name`] = "There is one of this name already.";
    if (b.billing && b.billing.invoicePrefix === b.billing.creditPrefix)
      fields["/billing/creditPrefix"] =
        "Invoices and credit notes have numbers of their own: choose another beginning.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });

    const values = {
      name: b.name.trim(),
      phone: b.phone,
      mail: b.mail,
      payment_days: b.paymentDays,
      travel_margin_minutes: b.travelMarginMinutes,
      travel_margin_percent: b.travelMarginPercent,
      winding_percent: b.windingPercent,
      kmh: b.kmh,
      labour_cost_minor: b.labourCostMinor,
      mark: b.mark,
      lng: b.place?.lng,
      lat: b.place?.lat,
      address: b.place?.line,
      site: b.site,
      registration: b.registration,
      tax_number: b.taxNumber,
      currency: b.currency,
      time_zone: b.timeZone,
      keep_changes_days: b.keepChangesDays,
      week_start: b.weekStart,
      clock_hours: b.clockHours,
      prices_include_tax:
        b.pricesIncludeTax === undefined ? undefined : b.pricesIncludeTax ? (1 as const) : (0 as const),
      terms: b.terms,
      quote_text: b.quoteText,
      invoice_text: b.invoiceText,
      invoice_prefix: b.billing?.invoicePrefix,
      credit_prefix: b.billing?.creditPrefix,
      bank_account: b.billing?.bankAccount.trim(),
      exempt_words: b.billing?.exemptWords.trim(),
      payment_from: b.billing?.paymentFrom,
      billing: b.billing?.by,
      late_fee_days: b.billing?.lateFeeDays,
      late_fee_minor: b.billing?.lateFeeMinor,
      late_fee_bp: b.billing?.lateFeeBp,
      return_fee_minor: b.billing?.returnFeeMinor,
      parts_most: b.billing?.partsMost,
      parts_from_minor: b.billing?.partsFromMinor,
      part_months: b.billing?.partMonths,
      tips: b.billing?.tips === undefined ? undefined : b.billing.tips ? (1 as const) : (0 as const),
      quote_follow_ups: b.billing?.quoteFollowUps && daysColumn.write(b.billing.quoteFollowUps),
    };
    saveSettings(context, values);
    if (b.taxRates) saveTaxRates(context, b.taxRates);
    if (b.billing?.textBlocks) saveTextBlocks(context, b.billing.textBlocks);
  },
});

/** Services keep the rate they have: a rate here is a choice to make, not a rule that reaches back. */
function saveTaxRates({ sql }: OperationContext, rates: readonly Static<typeof TaxRate>[]): void {
  sql("DELETE FROM tax_rates").run();
  for (const [i, { name, rateBp, zeroKind = "zero rated", words = "" }] of rates.entries())
    insertRow(sql, "tax_rates", {
      name: name.trim(),
      rate_bp: rateBp,
      position: i,
      zero_kind: rateBp === 0 ? zeroKind : "zero rated",
      words: rateBp === 0 ? words.trim() : "",
    });
}

/** What was printed stays as it was: papers keep their words. */
function saveTextBlocks({ sql }: OperationContext, blocks: readonly Static<typeof TextBlock>[]): void {
  sql("DELETE FROM text_blocks").run();
  for (const { serviceId, ...block } of blocks) insertRow(sql, "text_blocks", { ...block, service_id: serviceId });
}

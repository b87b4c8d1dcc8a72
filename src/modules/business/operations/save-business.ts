import { Refusal } from "@/core/problems";
import { SaveBusiness } from "@/schemas/setup";
import { defineOperation, type OperationContext } from "../door";

export const saveBusiness = defineOperation({
  name: "save-business",
  access: "setup.change",
  input: SaveBusiness,
  run(context, b) {
    const { sql, business } = context;
    const fields: Record<string, string> = {};
    if (b.messageTo <= b.messageFrom) fields["/messageTo"] = "The hours end after they begin.";
    if (b.currency && b.currency !== business.currency && sql("SELECT 1 FROM jobs").get())
      fields["/currency"] = `Work is priced in ${business.currency} already, so the currency stays.`;
    if (
      b.timeZone &&
      b.timeZone !== business.time_zone &&
      sql("SELECT 1 FROM visits WHERE state IN ('held', 'forecast', 'promised')").get()
    )
      fields["/timeZone"] = "Visits are promised in the time zone as it is, so it stays.";
    const twice =
      b.taxRates?.findIndex(
        (rate, i) => b.taxRates!.findIndex((r) => r.name.trim().toLowerCase() === rate.name.trim().toLowerCase()) < i,
      ) ?? -1;
    if (twice >= 0) fields[`/taxRates/${twice}/name`] = "There is one of this name already.";
    if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });

    const values = {
      name: b.name.trim(),
      phone: b.phone,
      mail: b.mail,
      payment_days: b.paymentDays,
      reminder_hours: b.reminderHours,
      message_from: b.messageFrom,
      message_to: b.messageTo,
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
      week_start: b.weekStart,
      clock_hours: b.clockHours,
      prices_include_tax: b.pricesIncludeTax === undefined ? undefined : b.pricesIncludeTax ? 1 : 0,
      terms: b.terms,
      quote_text: b.quoteText,
      invoice_text: b.invoiceText,
    };
    const given = Object.entries(values).filter(([, value]) => value !== undefined);
    sql(`UPDATE business SET ${given.map(([column]) => `${column} = ?`).join(", ")}`).run(
      ...given.map(([, value]) => value as string | number | null),
    );
    if (b.taxRates) saveTaxRates(context, b.taxRates);
  },
});

/** Services keep the rate they have: a rate here is a choice to make, not a rule that reaches back. */
function saveTaxRates({ sql }: OperationContext, rates: readonly { name: string; rateBp: number }[]): void {
  sql("DELETE FROM tax_rates").run();
  for (const [i, { name, rateBp }] of rates.entries())
    sql("INSERT INTO tax_rates (name, rate_bp, position) VALUES (?, ?, ?)").run(name.trim(), rateBp, i);
}

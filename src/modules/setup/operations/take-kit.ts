import { existsSync, readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { mapEffects, type Question } from "@/core/catalogue/questions";
import { minorDigits } from "@/core/money/amounts";
import { Refusal } from "@/core/problems";
import { Kit, TakeKit } from "@/schemas/kits";
import { SaveService } from "@/schemas/setup";
import { checkInput } from "./check-input";
import { defineOperation, type OperationContext } from "./door";
import { saveBookingRules } from "./setup/booking-rules";
import { skillNamed } from "./setup/rows";
import { saveExtra } from "./setup/save-extra";
import { saveService } from "./setup/save-service";

/** Starter kits are files in kits/: anyone can add one. */
const folder = (): string => path.join(process.cwd(), "kits");

export const kitNames = (): string[] =>
  existsSync(folder())
    ? readdirSync(folder())
        .filter((file) => file.endsWith(".json"))
        .map((file) => file.slice(0, -5))
        .sort()
    : [];

export function readKit(name: string): Kit {
  if (!kitNames().includes(name)) throw new Refusal("not-found");
  return checkInput(Kit, JSON.parse(readFileSync(path.join(folder(), `${name}.json`), "utf8"))) as Kit;
}

/**
 * Makes the services of a kit, with their skills, questions and extras, and the window pattern where
 * there is none yet. What is there already under the same name or code stays as it is; the answer
 * says how much was made.
 */
export const takeKit = defineOperation({
  name: "take-kit",
  access: "setup.change",
  input: TakeKit,
  run(context, { kit: name, services: wanted, taxBp }) {
    const { sql, business } = context;
    const kit = readKit(name);
    const amount = (hundredths: number) => Math.round(hundredths * 10 ** (minorDigits(business.currency) - 2));
    const chosen = kit.services.filter((service) => wanted.includes(service.code));
    const extraIds = new Map(
      kit.extras
        .filter((extra) => chosen.some((s) => s.extras.includes(extra.name)))
        .map((extra) => [
          extra.name,
          extraNamed(context, {
            ...extra,
            priceMinor: amount(extra.priceMinor),
            costMinor: amount(extra.costMinor),
            taxBp,
          }),
        ]),
    );

    let made = 0;
    for (const service of chosen) {
      if (sql("SELECT 1 FROM services WHERE code = ? OR name = ?").get(service.code, service.name)) continue;
      const questions = service.questions.map((question) =>
        mapEffects(question as Question, (effect) => ({
          ...effect,
          ...(effect.price &&
            effect.price.how !== "percent" && { price: { ...effect.price, minor: amount(effect.price.minor) } }),
          ...(effect.skills && {
            skills: effect.skills.map((s) => ({ ...s, skill: String(skillNamed(context, s.skill)) })),
          }),
          ...(effect.extras && { extras: effect.extras.map((x) => ({ ...x, id: String(extraIds.get(x.id)) })) }),
        })),
      );
      const deposit =
        service.deposit.kind === "fixed"
          ? { kind: "fixed" as const, value: amount(service.deposit.value) }
          : service.deposit;
      saveService.run(
        context,
        checkInput(SaveService, {
          ...service,
          id: null,
          priceMinor: amount(service.priceMinor),
          taxBp,
          beforeMinutes: 0,
          deposit,
          active: true,
          questions,
          checklist: service.checklist ?? [],
          extras: service.extras.map((x) => ({ id: extraIds.get(x)!, most: 20 })),
        }),
      );
      made++;
    }
    const first = !sql("SELECT 1 FROM pattern_parts WHERE pattern_id = 1").get();
    if (first)
      saveBookingRules.run(context, {
        windows: kit.windows,
        noticeMinutes: business.notice_minutes,
        horizonDays: business.horizon_days,
        holdMinutes: business.hold_minutes,
      });
    if (kit.texts)
      sql(
        "UPDATE business SET terms = iif(terms = '', ?, terms), quote_text = iif(quote_text = '', ?, quote_text), invoice_text = iif(invoice_text = '', ?, invoice_text)",
      ).run(kit.texts.terms, kit.texts.quote, kit.texts.invoice);
    if (!sql("SELECT 1 FROM tax_rates").get())
      sql("INSERT INTO tax_rates (name, rate_bp, position) VALUES ('Standard', ?, 0)").run(taxBp);
    return { made, there: chosen.length - made, windows: first };
  },
});

function extraNamed(
  context: OperationContext,
  extra: { name: string; unit: string; priceMinor: number; costMinor: number; taxBp: number },
): number {
  return (
    context.sql<{ id: number }>("SELECT id FROM extras WHERE name = ?").get(extra.name)?.id ??
    saveExtra.run(context, { id: null, ...extra, active: true }).id
  );
}

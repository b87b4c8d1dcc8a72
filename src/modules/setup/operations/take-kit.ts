import { mapEffects, type Question } from "@/core/catalogue/questions";
import { minorDigits } from "@/core/money/amounts";
import { checkInput } from "@/kernel/check-input";
import { input } from "@/kernel/inputs";
import { defineOperation, type OperationContext } from "@/kernel/operation";
import type { ServiceRow } from "@/modules/catalogue/catalogue";
import { SaveService } from "@/modules/catalogue/inputs";
import { storeExtra } from "@/modules/catalogue/saving-extras";
import { storeService } from "@/modules/catalogue/saving-services";
import { changeBookingRules } from "@/modules/placing/booking-rules";
import { Type } from "@sinclair/typebox";
import { besideKnown, readKit } from "../kits";
import { saveSettings } from "@/kernel/settings";
import { addFirstTaxRate } from "@/modules/business/tax-rates";
import { skillNamed } from "@/modules/catalogue/skills";

/** Takes a kit over: the services chosen, by code, at the business's usual tax rate. */
const TakeKit = input({
  kit: Type.String({ pattern: "^[a-z-]{1,60}$" }),
  services: Type.Array(Type.String({ maxLength: 2 }), { minItems: 1, maxItems: 100 }),
  taxBp: Type.Integer({ minimum: 0, maximum: 10_000 }),
});

/**
 * Makes the services of a kit, with their skills, questions and extras, and the window pattern where
 * there is none yet. What is there already stays as it is; the answer says how much was made.
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
      const own = besideKnown(
        service,
        sql<Pick<ServiceRow, "code" | "name" | "category">>("SELECT * FROM services").all(),
      );
      if (!own) continue;
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
      storeService(
        context,
        checkInput(SaveService, {
          ...service,
          ...own,
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
      changeBookingRules(context, {
        windows: kit.windows,
        noticeMinutes: business.notice_minutes,
        horizonDays: business.horizon_days,
        holdMinutes: business.hold_minutes,
      });
    if (kit.texts)
      saveSettings(context, {
        terms: business.terms || kit.texts.terms,
        quote_text: business.quote_text || kit.texts.quote,
        invoice_text: business.invoice_text || kit.texts.invoice,
      });
    addFirstTaxRate(context, taxBp);
    return { made, there: chosen.length - made, windows: first };
  },
});

function extraNamed(
  context: OperationContext,
  extra: { name: string; unit: string; priceMinor: number; costMinor: number; taxBp: number },
): number {
  return (
    context.sql<{ id: number }>("SELECT id FROM extras WHERE name = ?").get(extra.name)?.id ??
    storeExtra(context, { id: null, ...extra, active: true }).id
  );
}

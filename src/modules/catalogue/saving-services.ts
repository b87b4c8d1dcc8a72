import { questionProblems } from "@/core/catalogue/question-check";
import { effectsIn, type Question } from "@/core/catalogue/questions";
import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import { refuseOverlaps, saveLimits, saveNamed, saveRow } from "@/kernel/rows";
import { insertRow } from "@/store/insert";
import type { SaveService } from "./inputs";
import { refuseOddWindows, saveOwnWindows } from "./window-patterns";
import { skillNamed } from "./skills";

/** Adds or changes a service with all that belongs to it. */
export function storeService(context: OperationContext, service: SaveService): { id: number } {
  refuseOddTerms(service);
  refuseOddSeats(context, service);
  if (service.hours) refuseOverlaps(service.hours);
  if (service.windows) refuseOddWindows(service.windows);
  if (service.questions) refuseOddQuestions(context, service.questions);
  const { sql } = context;
  const { deposit, late } = service;
  const category = categoryNamed(context, service.category.trim());
  const id = saveRow(context, "services", service.id, {
    code: service.code.toUpperCase(),
    name: service.name.trim(),
    ...(service.otherNames && { other_names: JSON.stringify(namesSaid(service.otherNames)) }),
    category: category.name,
    description: service.description,
    price_minor: service.priceMinor,
    tax_bp: service.taxBp,
    minutes: service.minutes,
    before_minutes: service.beforeMinutes,
    after_minutes: service.afterMinutes,
    crew: service.crew,
    deposit_kind: deposit.kind,
    deposit_value: deposit.kind === "percent" || deposit.kind === "fixed" ? deposit.value : 0,
    hue: service.hue ?? category.hue,
    active: service.active ? 1 : 0,
    ...(service.days !== undefined && { days: service.days }),
    ...(service.workPlace && { work_place: service.workPlace }),
    ...(service.seats !== undefined && { seats: service.seats }),
    ...(service.noticeMinutes !== undefined && { notice_minutes: service.noticeMinutes }),
    ...(service.capacity !== undefined && { capacity: service.capacity }),
    ...(service.wish !== undefined && { wish: service.wish }),
    ...(service.repeats && { repeats: JSON.stringify(service.repeats) }),
    ...(service.comes && { comes: service.comes }),
    ...(service.promiseDays !== undefined && { promise_days: service.promiseDays }),
    ...(service.againMonths !== undefined && { again_months: service.againMonths }),
    ...(service.tells !== undefined && { tells: service.tells }),
    ...(service.questions && { questions: JSON.stringify(service.questions) }),
    ...(service.checklist && { checklist: JSON.stringify(service.checklist) }),
    ...(service.picture !== undefined && { picture: service.picture }),
    ...(service.priceKind && { price_kind: service.priceKind }),
    ...flag("shows_price", service.showsPrice),
    ...flag("shows_minutes", service.showsMinutes),
    ...flag("may_pay_all", service.mayPayAll),
    ...flag("hidden", service.hidden),
    ...flag("confirm", service.confirm),
    ...(late && {
      late_hours: late.hours,
      late_fee_kind: late.kind,
      late_fee_value: late.kind === "none" ? 0 : late.value,
    }),
    ...(service.noAccessMinor !== undefined && { no_access_minor: service.noAccessMinor }),
    ...(service.slug !== undefined
      ? { slug: service.slug }
      : service.id === null
        ? { slug: freeSlug(context, service.name) }
        : {}),
    ...(service.id === null && {
      position: sql<{ n: number }>("SELECT count(*) AS n FROM services WHERE category = ?").get(category.name)!.n,
    }),
  });
  sql("DELETE FROM service_skills WHERE service_id = ?").run(id);
  for (const skill of service.skills) {
    const { name, level } = typeof skill === "string" ? { name: skill, level: 1 } : skill;
    insertRow(
      sql,
      "service_skills",
      { service_id: id, skill_id: skillNamed(context, name), level },
      "ON CONFLICT DO UPDATE SET level = max(level, excluded.level)",
    );
  }
  if (service.windows !== undefined) saveOwnWindows(context, id, service.name.trim(), service.windows);
  if (service.hours) {
    sql("DELETE FROM service_hours WHERE service_id = ?").run(id);
    for (const { weekday, opens, closes } of service.hours)
      insertRow(sql, "service_hours", { service_id: id, weekday, opens, closes });
  }
  if (service.extras) {
    sql("DELETE FROM service_extras WHERE service_id = ?").run(id);
    for (const [i, extra] of service.extras.entries())
      insertRow(sql, "service_extras", { service_id: id, extra_id: extra.id, position: i, most: extra.most });
  }
  if (service.technicians) saveNamed(context, "service_technicians", id, service.technicians);
  if (service.limits) saveLimits(context, "service", id, service.limits);
  return { id };
}

/** Names that were left empty are none. */
const namesSaid = (names: NonNullable<SaveService["otherNames"]>) =>
  Object.fromEntries(
    Object.entries(names).flatMap(([language, name]) => (name?.trim() ? [[language, name.trim()]] : [])),
  );

function refuseOddTerms({ deposit, late, priceMinor, priceKind }: SaveService): void {
  const fields: Record<string, string> = {};
  if (deposit.kind === "fixed" && deposit.value > priceMinor)
    fields["/deposit/value"] = "The deposit is larger than the price.";
  if (deposit.kind === "percent" && deposit.value > 10_000) fields["/deposit/value"] = "Enter at most 100%.";
  if (priceKind === "quote" && deposit.kind !== "none")
    fields["/deposit/kind"] = "What is priced on quote has no deposit yet.";
  if (late?.kind === "percent" && late.value > 10_000) fields["/late/value"] = "Enter at most 100%.";
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

/** A time that is shared is at one place and on one day, and comes back for nobody in particular. */
function refuseOddSeats(
  { sql }: OperationContext,
  { id, seats: asked, workPlace = "site", days = 1, crew, repeats = [], againMonths }: SaveService,
): void {
  const before = sql<{ seats: number }>("SELECT seats FROM services WHERE id = ?").get(id ?? 0);
  const seats = asked ?? before?.seats ?? 0;
  if (seats === 0) return;
  const fields: Record<string, string> = {};
  if (seats === 1) fields["/seats"] = "Enter at least 2 seats, or 0 where each customer has a time of their own.";
  if (workPlace === "site")
    fields["/workPlace"] =
      "Several customers at one time come to our place, or are called together. Choose one of these.";
  if (days > 1) fields["/days"] = "A time with several seats is on one day.";
  if (crew > 1) fields["/crew"] = "A time with several seats has one technician.";
  if (againMonths) fields["/againMonths"] = "A seat is booked once: it does not come back by itself.";
  if (repeats.length) fields["/repeats"] = "A seat is booked once: it does not come back by itself.";
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

const flag = (column: string, value: boolean | undefined) => (value === undefined ? {} : { [column]: value ? 1 : 0 });

/** A category, made at the end where it is new; it takes the next of eight hues. */
export function categoryNamed({ sql }: OperationContext, name: string): { name: string; hue: number } {
  const known = sql<{ name: string; hue: number }>("SELECT name, hue FROM categories WHERE name = ?").get(name);
  if (known) return known;
  const { n } = sql<{ n: number }>("SELECT count(*) AS n FROM categories").get()!;
  insertRow(sql, "categories", { name, position: n, hue: n % 8 });
  return { name, hue: n % 8 };
}

/** The end of a service's own address, made of its name: "chimney-sweep". */
export function freeSlug({ sql }: OperationContext, name: string): string {
  const plain =
    name
      .normalize("NFKD")
      .toLowerCase()
      .replace(/[^a-z0-9]+/g, "-")
      .replace(/^-|-$/g, "")
      .slice(0, 50) || "service";
  let slug = plain.length < 2 ? `${plain}-1` : plain;
  for (let n = 2; sql("SELECT 1 FROM services WHERE slug = ?").get(slug); n++) slug = `${plain}-${n}`;
  return slug;
}

/** What the shape cannot tell: conditions that can never hold, skills and extras that are not there. */
function refuseOddQuestions({ sql }: OperationContext, questions: Question[]): void {
  const fields = Object.fromEntries(
    Object.entries(questionProblems(questions)).map(([at, sentence]) => [`/questions${at}`, sentence]),
  );
  const known = (table: "skills" | "extras") =>
    new Set(
      sql<{ id: number }>(`SELECT id FROM ${table}`)
        .all()
        .map((row) => String(row.id)),
    );
  const [skills, extras] = [known("skills"), known("extras")];
  for (const [i, question] of questions.entries())
    for (const effect of effectsIn(question)) {
      if (effect.skills?.some((s) => !skills.has(s.skill)))
        fields[`/questions/${i}`] = "An answer asks for a skill that is not there any more.";
      if (effect.extras?.some((x) => !extras.has(x.id)))
        fields[`/questions/${i}`] = "An answer brings an extra that is not there any more.";
    }
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
}

import type { ChecklistItem } from "@/core/catalogue/checklist";
import type { Question } from "@/core/catalogue/questions";
import { groupBy } from "@/core/group";
import type { RepeatEvery } from "@/core/repeats/rule";
import type { ViewContext } from "@/kernel/operation";
import { hoursBy, limitsBy, namedBy, promisedBy } from "@/kernel/reading";
import { readCoupons } from "@/modules/catalogue/coupons";
import { readPattern } from "@/modules/catalogue/patterns";

interface ServiceRow {
  id: number;
  code: string;
  name: string;
  category: string;
  description: string;
  price_minor: number;
  tax_bp: number;
  minutes: number;
  before_minutes: number;
  after_minutes: number;
  crew: number;
  hue: number;
  active: number;
  days: number;
  notice_minutes: number;
  deposit_kind: "none" | "percent" | "fixed" | "full";
  deposit_value: number;
  capacity: "route" | "count" | "open" | "ask" | null;
  wish: "none" | "preferred" | "only";
  repeats: string;
  confirm: number;
  pattern_id: number | null;
  questions: string;
  checklist: string;
  picture: string | null;
  price_kind: "fixed" | "from" | "quote";
  shows_price: number;
  shows_minutes: number;
  may_pay_all: number;
  late_hours: number;
  late_fee_kind: "none" | "percent" | "fixed";
  late_fee_value: number;
  no_access_minor: number;
  hidden: number;
  slug: string | null;
}

/** What can be booked, in the owner's order, with skills and extras. */
export function readServices(context: ViewContext) {
  const { sql } = context;
  const [limitsOf, hoursOf, techniciansOf, promised] = [
    limitsBy(context, "service"),
    hoursBy(context, "service_hours", "service"),
    namedBy(context, "service", "technician"),
    promisedBy(context, "service_id"),
  ];
  const extras = groupBy(
    sql<{ service_id: number; extra_id: number; most: number }>(
      "SELECT * FROM service_extras ORDER BY service_id, position",
    ).all(),
    (x) => x.service_id,
  );
  const needs = groupBy(
    sql<{ service_id: number; name: string; level: number }>(
      "SELECT ss.service_id, s.name, ss.level FROM service_skills ss JOIN skills s ON s.id = ss.skill_id ORDER BY s.name",
    ).all(),
    (s) => s.service_id,
  );
  const skills = sql<{ id: number; name: string }>("SELECT id, name FROM skills ORDER BY name").all();
  return {
    skills: skills.map((s) => s.name),
    skillIds: skills,
    extras: sql<{
      id: number;
      name: string;
      unit: string;
      price_minor: number;
      cost_minor: number;
      tax_bp: number;
      active: number;
    }>("SELECT * FROM extras ORDER BY active DESC, name")
      .all()
      .map((x) => ({
        id: x.id,
        name: x.name,
        unit: x.unit,
        priceMinor: x.price_minor,
        costMinor: x.cost_minor,
        taxBp: x.tax_bp,
        active: x.active === 1,
      })),
    coupons: readCoupons(context),
    categories: sql<{ name: string; hue: number }>("SELECT name, hue FROM categories ORDER BY position, name").all(),
    services: sql<ServiceRow>(
      "SELECT s.* FROM services s LEFT JOIN categories c ON c.name = s.category ORDER BY c.position, s.category, s.position, s.name",
    )
      .all()
      .map((s) => ({
        id: s.id,
        code: s.code,
        name: s.name,
        category: s.category,
        description: s.description,
        priceMinor: s.price_minor,
        taxBp: s.tax_bp,
        minutes: s.minutes,
        beforeMinutes: s.before_minutes,
        afterMinutes: s.after_minutes,
        crew: s.crew,
        hue: s.hue,
        active: s.active === 1,
        skills: (needs.get(s.id) ?? []).map((n) => ({ name: n.name, level: n.level })),
        deposit: { kind: s.deposit_kind, value: s.deposit_value },
        days: s.days,
        noticeMinutes: s.notice_minutes,
        capacity: s.capacity,
        wish: s.wish,
        confirm: s.confirm === 1,
        repeats: JSON.parse(s.repeats) as RepeatEvery[],
        windows: s.pattern_id === null ? null : readPattern(context, [s.id]),
        hours: hoursOf(s.id),
        technicians: techniciansOf(s.id),
        limits: limitsOf(s.id),
        questions: JSON.parse(s.questions) as Question[],
        checklist: JSON.parse(s.checklist) as ChecklistItem[],
        extras: (extras.get(s.id) ?? []).map((x) => ({ id: x.extra_id, most: x.most })),
        picture: s.picture,
        priceKind: s.price_kind,
        showsPrice: s.shows_price === 1,
        showsMinutes: s.shows_minutes === 1,
        mayPayAll: s.may_pay_all === 1,
        late: { hours: s.late_hours, kind: s.late_fee_kind, value: s.late_fee_value },
        noAccessMinor: s.no_access_minor,
        hidden: s.hidden === 1,
        slug: s.slug,
        promised: promised(s.id),
      })),
  };
}

import { groupBy } from "@/core/group";
import type { ViewContext } from "@/kernel/operation";
import { hoursBy, limitsBy, namedBy, promisedBy } from "@/kernel/reading";
import { readCoupons } from "@/modules/catalogue/coupons";
import { jobPatterns } from "@/modules/catalogue/job-patterns";
import { readPattern } from "@/modules/catalogue/window-patterns";
import { checklistColumn, otherNamesColumn, questionsColumn, repeatsEveryColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

type ServiceRow = Rows["services"];

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
      `SELECT ss.service_id, s.name, ss.level
        FROM service_skills ss JOIN skills s ON s.id = ss.skill_id ORDER BY s.name`,
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
    jobPatterns: jobPatterns(context),
    coupons: readCoupons(context),
    categories: sql<{ name: string; hue: number }>("SELECT name, hue FROM categories ORDER BY position, name").all(),
    services: sql<ServiceRow>(
      `SELECT s.*
        FROM services s LEFT JOIN categories c ON c.name = s.category
        ORDER BY c.position, s.category, s.position, s.name`,
    )
      .all()
      .map((s) => ({
        id: s.id,
        code: s.code,
        name: s.name,
        otherNames: otherNamesColumn.read(s.other_names),
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
        workPlace: s.work_place,
        seats: s.seats,
        noticeMinutes: s.notice_minutes,
        capacity: s.capacity,
        wish: s.wish,
        confirm: s.confirm === 1,
        repeats: repeatsEveryColumn.read(s.repeats),
        comes: s.comes,
        promiseDays: s.promise_days,
        againMonths: s.again_months,
        tells: s.tells,
        windows: s.pattern_id === null ? null : readPattern(context, [s.id]),
        hours: hoursOf(s.id),
        technicians: techniciansOf(s.id),
        limits: limitsOf(s.id),
        questions: questionsColumn.read(s.questions),
        checklist: checklistColumn.read(s.checklist),
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

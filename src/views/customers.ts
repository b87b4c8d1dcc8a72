import { Id, input } from "@/schemas/common";
import { FindAddress } from "@/schemas/booking";
import { Nothing } from "@/schemas/money";
import { seesOnly } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { seenCustomers } from "@/operations/visits";
import { ruleWords, type RepeatRule } from "@/core/repeats/rule";
import { windowWords } from "@/core/time/words";
import { defineView } from "./view";

const openOf =
  "(SELECT coalesce(sum(i.total_minor), 0) - coalesce((SELECT sum(a.amount_minor) FROM applications a JOIN invoices i2 ON i2.id = a.invoice_id WHERE i2.customer_id = c.id), 0) FROM invoices i WHERE i.customer_id = c.id AND i.cancelled_at IS NULL)";

export const customers = defineView({
  name: "customers",
  access: "customers.see",
  input: Nothing,
  read: ({ sql, today, business, actor }) => ({
    currency: business.currency,
    rows: sql<{
      id: number;
      name: string;
      mail: string;
      phone: string;
      sites: number;
      zone: string | null;
      lastVisit: string | null;
      nextVisit: string | null;
      openMinor: number;
    }>(
      `SELECT c.id, c.name, c.mail, c.phone, (SELECT count(DISTINCT line || postcode) FROM sites WHERE customer_id = c.id) AS sites,
         (SELECT z.name FROM sites s JOIN zones z ON z.id = s.zone_id WHERE s.customer_id = c.id LIMIT 1) AS zone,
         (SELECT max(v.date) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = c.id AND v.state = 'done') AS lastVisit,
         (SELECT min(v.date) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = c.id AND v.state = 'promised' AND v.date >= @today) AS nextVisit,
         ${openOf} AS openMinor
       FROM customers c WHERE c.merged_into IS NULL AND ${seenCustomers} ORDER BY c.name`,
    ).all({ today, only: seesOnly(actor) }),
  }),
});

/** Pairs who may be the same person, side by side; and merges that can be taken back. */
export const alike = defineView({
  name: "alike",
  access: "board.change",
  input: Nothing,
  read({ sql, actor }) {
    if (seesOnly(actor) !== null) return { open: [], merged: [] };
    const side = (id: number) => ({
      ...sql<{ id: number; name: string; mail: string; phone: string; since_at: number; visits: number }>(
        "SELECT id, name, mail, phone, since_at, (SELECT count(*) FROM visits v JOIN jobs j ON j.id = v.job_id WHERE j.customer_id = c.id AND v.state <> 'cancelled') AS visits FROM customers c WHERE id = ?",
      ).get(id)!,
      sites: sql<{ line: string; postcode: string }>("SELECT DISTINCT line, postcode FROM sites WHERE customer_id = ?")
        .all(id)
        .map((s) => `${s.line}, ${s.postcode}`),
    });
    return {
      open: sql<{ id: number; one_id: number; other_id: number }>(
        "SELECT a.id, a.one_id, a.other_id FROM alike a JOIN customers o ON o.id = a.one_id JOIN customers t ON t.id = a.other_id WHERE a.state = 'open' AND o.merged_into IS NULL AND t.merged_into IS NULL ORDER BY a.id LIMIT 20",
      )
        .all()
        .map((pair) => ({ id: pair.id, sides: [side(pair.one_id), side(pair.other_id)] as const })),
      merged: sql<{ id: number; kept: string; gone: string }>(
        "SELECT a.id, k.name AS kept, g.name AS gone FROM alike a JOIN customers g ON g.id IN (a.one_id, a.other_id) AND g.merged_into IN (a.one_id, a.other_id) JOIN customers k ON k.id = g.merged_into WHERE a.state = 'merged' AND k.merged_into IS NULL ORDER BY a.id DESC LIMIT 10",
      ).all(),
    };
  },
});

export const customer = defineView({
  name: "customer",
  access: "customers.see",
  input: input({ id: Id }),
  read({ sql, business, actor }, { id }) {
    const row = sql<{
      id: number;
      name: string;
      mail: string;
      phone: string;
      reminders: number;
      offers: number;
      since_at: number;
      openMinor: number;
    }>(`SELECT c.*, ${openOf} AS openMinor FROM customers c WHERE id = @id AND ${seenCustomers}`).get({
      id,
      only: seesOnly(actor),
    });
    if (!row) throw new Refusal("not-found");
    return {
      ...row,
      currency: business.currency,
      timeZone: business.time_zone,
      card:
        sql<{ label: string }>(
          "SELECT label FROM cards WHERE customer_id = ? AND removed_at IS NULL ORDER BY id DESC LIMIT 1",
        ).get(id)?.label ?? null,
      consents: sql<{ id: number; kind: string; given: number; words: string; at: number }>(
        "SELECT id, kind, given, words, at FROM consents WHERE customer_id = ? ORDER BY id DESC",
      ).all(id),
      // Two that were merged may have had the same one.
      sites: sql<{ id: number; line: string; postcode: string; zone: string | null }>(
        "SELECT min(s.id) AS id, s.line, s.postcode, z.name AS zone FROM sites s LEFT JOIN zones z ON z.id = s.zone_id WHERE customer_id = ? GROUP BY s.line, s.postcode",
      ).all(id),
      visits: sql<{
        id: number;
        date: string;
        state: string;
        service: string;
        code: string;
        hue: number;
        totalMinor: number;
      }>(
        "SELECT v.id, v.date, v.state, v.title AS service, s.code, s.hue, j.total_minor AS totalMinor FROM visits v JOIN jobs j ON j.id = v.job_id JOIN services s ON s.id = v.service_id WHERE j.customer_id = ? ORDER BY v.window_from DESC LIMIT 30",
      ).all(id),
      messages: sql<{ id: number; channel: string; subject: string; body: string; state: string; written_at: number }>(
        "SELECT id, channel, subject, body, state, written_at FROM messages WHERE customer_id = ? ORDER BY id DESC LIMIT 20",
      ).all(id),
    };
  },
});

export const repeats = defineView({
  name: "repeats",
  access: "customers.see",
  input: Nothing,
  read: ({ sql, today, actor }) =>
    sql<{
      id: number;
      customer: string;
      service: string;
      code: string;
      hue: number;
      every: number;
      unit: RepeatRule["unit"];
      until_date: string | null;
      from_minute: number;
      to_minute: number;
      state: string;
      technician: string | null;
      site: string;
      next: string | null;
      nextVisit: number | null;
      ahead: number;
      unplaced: number;
    }>(
      `SELECT r.*, c.name AS customer, s.name AS service, s.code, s.hue, t.line AS site, te.name AS technician,
         (SELECT min(date) FROM visits v WHERE v.repeat_id = r.id AND date >= @today AND v.state IN ('forecast', 'promised')) AS next,
         (SELECT id FROM visits v WHERE v.repeat_id = r.id AND date >= @today AND v.state IN ('forecast', 'promised') ORDER BY date LIMIT 1) AS nextVisit,
         (SELECT count(*) FROM visits v WHERE v.repeat_id = r.id AND date >= @today AND v.state = 'forecast') AS ahead,
         (SELECT count(*) FROM visits v WHERE v.repeat_id = r.id AND date >= @today AND v.state = 'forecast' AND NOT EXISTS (SELECT 1 FROM placements WHERE visit_id = v.id)) AS unplaced
       FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN services s ON s.id = r.service_id JOIN sites t ON t.id = r.site_id LEFT JOIN technicians te ON te.id = r.technician_id
       WHERE ${seenCustomers} ORDER BY r.state, next IS NULL, next`,
    )
      .all({ today, only: seesOnly(actor) })
      .map((r) => ({
        ...r,
        words: ruleWords({ every: r.every, unit: r.unit, until: r.until_date }),
        window: windowWords(r.from_minute, r.to_minute),
      })),
});

/** Customers and visits for the command palette. */
export const find = defineView({
  name: "find",
  access: "customers.see",
  input: FindAddress,
  read({ sql, today, actor }, { text }) {
    const only = seesOnly(actor);
    const like = `%${text.trim().replace(/[\\%_]/g, "\\$&")}%`;
    const found = sql<{ id: number; name: string; mail: string; phone: string }>(
      `SELECT id, name, mail, phone FROM customers c WHERE (name LIKE @like ESCAPE '\\' OR mail LIKE @like ESCAPE '\\' OR replace(phone, ' ', '') LIKE replace(@like, ' ', '') ESCAPE '\\') AND merged_into IS NULL AND ${seenCustomers} ORDER BY name LIMIT 6`,
    ).all({ like, only });
    const visits = sql<{ id: number; date: string; service: string; name: string; line: string }>(
      `SELECT v.id, v.date, v.title AS service, c.name, t.line FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id JOIN sites t ON t.id = j.site_id
       WHERE v.state <> 'cancelled' AND (c.name LIKE @like ESCAPE '\\' OR t.line LIKE @like ESCAPE '\\') AND ${seenCustomers} ORDER BY abs(julianday(v.date) - julianday(@today)) LIMIT 6`,
    ).all({ like, today, only });
    // What waits belongs to nobody yet: whoever sees only their own visits finds none of it.
    const waiting =
      only !== null
        ? []
        : sql<{ key: string; name: string; where: string }>(
            `SELECT 'request ' || id AS key, name, address AS "where" FROM requests WHERE outcome = 'open' AND (name LIKE @like ESCAPE '\\' OR address LIKE @like ESCAPE '\\')
       UNION ALL SELECT 'quote ' || id, name, line FROM quotes WHERE state IN ('sent', 'accepted', 'declined') AND (name LIKE @like ESCAPE '\\' OR line LIKE @like ESCAPE '\\') LIMIT 6`,
          ).all({ like });
    return { customers: found, visits, waiting };
  },
});

import type { Hogar } from "@/kernel/hogar";
import { makeBusiness } from "./full-business";

const largeOffice = {
  technicians: 30,
  days: 30,
  stopsADay: 8,
  customers: 9_000,
  history: 53_000,
  repeats: 3_000,
};

/**
 * A business that has been busy for years: 9,000 customers, 60,000 visits, 3,000 repeats, 50,000 invoices of which 3,100
 * are open, or so many as are asked for. Written straight into the database, with books that agree.
 */
export function makeLargeOffice(folder: string, { open = 3_100 } = {}): Hogar {
  const { technicians, days, stopsADay, customers, history, repeats } = largeOffice;
  const hogar = makeBusiness(folder, { technicians, days, stopsADay });
  const { db, audit } = hogar.store;
  const numbers = (count: number) =>
    `WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n WHERE i < ${count})`;
  const now = hogar.now();
  db.transaction(() =>
    audit.under({ at: now, actor: "bench", operation: "bench" }, () => {
      db.exec(`
        INSERT INTO customers (id, name, mail, phone, reminders, since_at)
          ${numbers(customers)} SELECT i + 1, 'Customer ' || i, 'c' || i || '@example.com', '+1 555 01' || (i % 90 + 10), 1, 0 FROM n;
        INSERT INTO sites (id, customer_id, line, postcode, lng, lat, zone_id, access)
          ${numbers(customers)} SELECT i + 1, i + 1, i || ' Harbour Lane', 'MW 101', s.lng, s.lat, 1, '' FROM n, sites s WHERE s.id = 1;
        INSERT INTO jobs (id, customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, booked_at, booked_by)
          SELECT v.id + 1, v.id % ${customers} + 2, v.id % ${customers} + 2, 1, 'agreed', 7900, 1371, 0, '', ${now} - v.id * 60000, 'bench' FROM visits v;
        UPDATE visits SET job_id = id + 1;
        INSERT INTO visits (id, state, job_id, service_id, title, zone_id, date, window_from, window_to, minutes, before_minutes, after_minutes, crew, lng, lat)
          ${numbers(history)} SELECT 100000 + i, 'promised', 1, 1, 'Chimney sweep', 1, date('now', '-' || (i % 700 + 1) || ' days'),
            ${Math.floor(now / 60_000)} - (i % 700 + 1) * 1440, ${Math.floor(now / 60_000)} - (i % 700 + 1) * 1440 + 120, 30, 0, 5, 1, s.lng, s.lat FROM n, sites s WHERE s.id = 1;
        INSERT INTO jobs (id, customer_id, site_id, service_id, state, total_minor, tax_minor, deposit_minor, note, booked_at, booked_by)
          SELECT v.id, v.id % ${customers} + 2, v.id % ${customers} + 2, 1, 'done', 7900, 1371, 0, '', v.window_from * 60000, 'bench' FROM visits v WHERE v.id > 100000;
        UPDATE visits SET job_id = id, state = 'done', started_at = window_from * 60000, ended_at = window_from * 60000 + 1800000 WHERE id > 100000;
        INSERT INTO job_lines SELECT id, 0, 'Chimney sweep', 1, 7900, 2100, 7900, 1371 FROM jobs;
        INSERT INTO invoices (id, year, number, label, nonce, job_id, customer_id, issued_at, due_date, remind_on, total_minor, tax_minor)
          SELECT id - 100000, 0, id - 99000, 'B-' || id, 'bench ' || id, id, customer_id, booked_at, date(booked_at / 1000 + 14 * 86400, 'unixepoch'), NULL, 7900, 1371 FROM jobs WHERE id > 100000 AND id <= 150000;
        INSERT INTO invoice_lines SELECT id, 0, job_id, 'Chimney sweep', 1, 7900, 2100, 7900, 1371, 0, NULL FROM invoices;
        INSERT INTO ledger_events (id, key, kind, at) SELECT id, 'invoice ' || id, 'invoice', issued_at FROM invoices;
        INSERT INTO ledger_entries (event_id, line, account, amount_minor, invoice_id, tax_bp)
          SELECT id, 0, 'receivable', 7900, id, NULL FROM invoices UNION ALL
          SELECT id, 1, 'sales', -6529, id, 2100 FROM invoices UNION ALL SELECT id, 2, 'tax', -1371, id, 2100 FROM invoices;
        INSERT INTO payments (id, customer_id, job_id, purpose, method, amount_minor, state, charge_key, asked_at, settled_at)
          SELECT id, customer_id, job_id, 'invoice', 'bank', 7900, 'received', 'bench ' || id, issued_at, issued_at FROM invoices WHERE id > ${open};
        INSERT INTO ledger_events (id, key, kind, at) SELECT 100000 + id, 'payment ' || id, 'payment', asked_at FROM payments
          UNION ALL SELECT 200000 + id, 'payment ' || id || ' to invoice ' || id, 'allocation', asked_at FROM payments;
        INSERT INTO ledger_entries (event_id, line, account, amount_minor, invoice_id, payment_id)
          SELECT 100000 + id, 0, 'bank', 7900, NULL, id FROM payments UNION ALL SELECT 100000 + id, 1, 'credit', -7900, NULL, id FROM payments UNION ALL
          SELECT 200000 + id, 0, 'credit', 7900, NULL, id FROM payments UNION ALL SELECT 200000 + id, 1, 'receivable', -7900, id, id FROM payments;
        UPDATE business SET message_from = 0, message_to = 1440;
        UPDATE invoices SET remind_on = date('now', '-1 day') WHERE id <= ${open};
        INSERT INTO repeats (id, customer_id, site_id, service_id, technician_id, rule, start_date, from_minute, to_minute, items, state)
          ${numbers(repeats)} SELECT i, i + 1, i + 1, 1, i % ${technicians} + 1, 'FREQ=MONTHLY;INTERVAL=' || (i % 12 + 1), date('now', '-' || (i % 300) || ' days'), 540, 660,
            '[{"serviceId":1,"quantity":1,"answers":{},"extras":[]}]', 'active' FROM n;
      `);
    }),
  ).immediate();
  db.exec("ANALYZE");
  return hogar;
}

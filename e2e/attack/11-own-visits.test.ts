import { as } from "../support/http";
import { underAttack, visitorAt } from "./attacker";

/** 11: who sees only their own visits changes and reads nothing of others. */
const app = underAttack();

it("by no operation and no view", async () => {
  const { change, ask } = visitorAt(app);
  const [mine, theirs] = app.sql<{ id: number }>("SELECT id FROM technicians WHERE active = 1 ORDER BY id LIMIT 2") as [
    { id: number },
    { id: number },
  ];
  // The technician's own sign-in goes; a dispatcher who sees only that day takes its place.
  const odile = await as(app.url, "odile");
  for (const p of app.sql<{ id: number; name: string; mail: string }>(
    "SELECT id, name, mail FROM people WHERE technician_id = ?",
    mine.id,
  ))
    await change("save-person", { ...p, role: "dispatcher", technicianId: null, active: false }, odile);
  const made = await change(
    "save-person",
    {
      id: null,
      name: "Only Own",
      mail: "own@marrowick.example",
      role: "dispatcher",
      technicianId: mine.id,
      active: true,
      given: ["contacts.see", "money.see", "money.change"],
      taken: ["visits.all"],
      password: "open the door",
    },
    odile,
  );
  expect(made.ok).toBe(true);
  const own = await as(app.url, "own");
  const other = app.sql<{ visit: number; job: number; customer: number }>(
    `SELECT v.id AS visit, v.job_id AS job, j.customer_id AS customer FROM visits v JOIN jobs j ON j.id = v.job_id
     WHERE v.state = 'promised' AND NOT EXISTS (SELECT 1 FROM visits w JOIN jobs k ON k.id = w.job_id JOIN placements p ON p.visit_id = w.id WHERE k.customer_id = j.customer_id AND p.technician_id = ?) LIMIT 1`,
    mine.id,
  )[0]!;
  const [repeat] = app.sql<{ id: number }>(
    "SELECT id FROM repeats r WHERE NOT EXISTS (SELECT 1 FROM visits v JOIN placements p ON p.visit_id = v.id WHERE v.repeat_id = r.id AND p.technician_id = ?) LIMIT 1",
    mine.id,
  );
  const page = { page: 0, size: 20, descending: true, search: "" };
  const day = app.sql<{ date: string }>("SELECT max(date) AS date FROM visits")[0]!.date;
  const tries: [Promise<{ status: number; ok: boolean }>, string][] = [
    [change("renew-link", { jobId: other.job }, own), "renew-link"],
    [change("copy-link", { jobId: other.job }, own), "copy-link"],
    [change("cancel-visit", { visitId: other.visit, refundDeposit: true }, own), "cancel-visit"],
    [change("end-repeat", { repeatId: repeat?.id ?? 999_999 }, own), "end-repeat"],
    [change("resume-repeat", { repeatId: repeat?.id ?? 999_999 }, own), "resume-repeat"],
    [
      change("record-time-off", { technicianId: theirs.id, firstDate: day, lastDate: day, reason: "Ill" }, own),
      "record-time-off",
    ],
    [change("set-day-hours", { technicianId: theirs.id, date: day, spans: null }, own), "set-day-hours"],
    [
      change(
        "record-errand",
        { technicianId: theirs.id, date: day, fromMinute: 600, toMinute: 660, title: "Van", addressId: null },
        own,
      ),
      "record-errand",
    ],
    [ask("visit-sheet", { visitId: other.visit }, own), "visit-sheet"],
    [ask("customers-page", { jobId: other.job }, own), "customers-page"],
    [ask("customer", { id: other.customer, visits: 5, messages: 5 }, own), "customer"],
    [ask("why-not-choices", { addressId: null }, own), "why-not-choices"],
    [ask("message-log", { ...page, sort: "at", channel: null, state: null }, own), "message-log"],
    [ask("message-figures", { days: 30 }, own), "message-figures"],
    [ask("invoices", { ...page, sort: "number", show: "all" }, own), "invoices"],
    [ask("money", {}, own), "money"],
  ];
  const threads = await ask<{ rows: { customerId: number | null }[] }>(
    "threads",
    { show: "all", search: "", more: 0 },
    own,
  );
  expect(threads.value.rows.filter(({ customerId }) => customerId === null || customerId === other.customer)).toEqual(
    [],
  );
  const through = [];
  for (const [tried, name] of tries) if ((await tried).ok) through.push(name);
  expect(through).toEqual([]);
  expect((await ask("today", {}, own)).value).toMatchObject({ booked: null, needs: [] });
});

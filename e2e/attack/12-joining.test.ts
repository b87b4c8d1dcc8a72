import { linkOf } from "../support/http";
import { underAttack, visitorAt } from "./attacker";

/** 12: who books under a customer's name and phone learns nothing of them and changes nothing about them. */
const app = underAttack();

interface Known {
  job: number;
  id: number;
  name: string;
  mail: string;
}

it("what was typed belongs to the booking", async () => {
  const { book, ask, jobOf } = visitorAt(app);
  const [victim] = app.sql<{ id: number; name: string; phone: string; offers: number; mail: string }>(
    "SELECT id, name, phone, offers, mail FROM customers WHERE offers = 0 AND name LIKE '% %' ORDER BY id LIMIT 1",
  );
  const [first, last] = victim!.name.split(" ") as [string, string];
  const typed = `${first[0]!.toLowerCase()} ${last.toLowerCase()}`;
  const answer = await book("x", {
    customer: { name: typed, mail: "attacker@example.com", phone: victim!.phone, offers: true },
  });
  const page = await ask<{ again: { name: string } }>("my-visit", {}, { "x-hogar-link": answer.value.link });
  expect(page.value.again.name).toBe(typed);
  expect(JSON.stringify(page.value)).not.toContain(victim!.name);
  expect(app.sql("SELECT offers, mail FROM customers WHERE id = ?", victim!.id)).toEqual([
    { offers: 0, mail: victim!.mail },
  ]);
  expect(app.sql("SELECT customer_id AS id FROM jobs WHERE id = ?", jobOf(answer.value.link))).not.toEqual([
    { id: victim!.id },
  ]);
});

it("a link of a booking of one’s own opens nobody else’s record, whoever’s name and email are typed", async () => {
  const { book, jobOf } = visitorAt(app);
  const [own, victim] = app.sql<Known>(
    `SELECT max(j.id) AS job, c.id, c.name, c.mail FROM customers c JOIN jobs j ON j.customer_id = c.id
      WHERE j.proof = 'known' AND c.mail <> '' AND c.name LIKE '% %' GROUP BY c.id ORDER BY c.id LIMIT 2`,
  ) as [Known, Known];
  const token = new URL(await linkOf(app.url, own.job)).pathname.split("/").at(-1)!;
  const answer = await book("x", {
    nth: 3,
    customer: { name: victim.name, mail: victim.mail, phone: "+1 201 555 0166", offers: true },
    headers: { "x-hogar-link": token },
  });
  expect(answer.ok).toBe(true);
  const [job] = app.sql<{ customer: number; proof: string }>(
    "SELECT customer_id AS customer, proof FROM jobs WHERE id = ?",
    jobOf(answer.value.link),
  );
  expect([job!.customer === victim.id, job!.proof]).toEqual([false, "none"]);
});

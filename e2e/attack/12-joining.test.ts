import { underAttack, visitorAt } from "./attacker";

/** 12: who books under a customer's name and phone learns nothing of them and changes nothing about them. */
const app = underAttack();

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

import { underAttack, untilSoon, visitorAt } from "./attacker";

/** 8: nobody sends their own words to strangers through us. */
const app = underAttack();
it("a name is no web address", async () => {
  const { book } = visitorAt(app);
  const answer = await book("Prize", { customer: { name: "Collect at www.evil.example" } });
  expect(answer.problem!.fields).toEqual({ "/customer/name": "Write the name, without a web or mail address." });
});

it("the first mail to somebody carries none of the words that were typed", async () => {
  const { book } = visitorAt(app);
  await book("Winner Collectnow", { more: { note: "Call the prize line" }, customer: { mail: "victim@example.com" } });
  const written = () =>
    app.sql<{ subject: string; body: string }>(
      "SELECT subject, body FROM messages WHERE recipient = 'victim@example.com' AND state = 'sent'",
    )[0];
  const mail = await untilSoon(app, written);
  expect(mail.subject).toMatch(/^Booked/);
  expect(mail.subject + mail.body).not.toMatch(/Winner|Collectnow|prize/);
});

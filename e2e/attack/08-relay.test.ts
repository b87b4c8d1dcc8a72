import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { underAttack, untilSoon, visitorAt } from "./attacker";

/** 8: nobody sends their own words to strangers through us. */
const app = underAttack();
const mails = () => {
  const box = path.join(app.folder, "standins", "mail");
  return readdirSync(box).map((name) => readFileSync(path.join(box, name), "utf8"));
};

it("a name is no web address", async () => {
  const { book } = visitorAt(app);
  const answer = await book("Prize", { customer: { name: "Collect at www.evil.example" } });
  expect(answer.problem!.fields).toEqual({ "/customer/name": "Write the name, without a web or mail address." });
});

it("the first mail to somebody carries none of the words that were typed", async () => {
  const { book } = visitorAt(app);
  await book("Winner Collectnow", { more: { note: "Call the prize line" }, customer: { mail: "victim@example.com" } });
  const mail = await untilSoon(app, () => mails().find((text) => /^To:.*victim@example\.com/m.test(text)));
  expect(mail).toMatch(/Subject: Booked/);
  expect(mail).not.toMatch(/Winner|Collectnow|prize/);
});

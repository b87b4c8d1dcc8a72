import { findings } from "./support/axe";
import { as, post } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { expectSoon, go } from "./support/server";

/** Reminders, answers and one conversation with each customer: the owner at a desk, the customer on the stand-in phone, and the demo's clock. */
jest.setTimeout(600_000);

const pair = pairForTests();
const frames = 2_400;
const day = (date: string, n: number) => new Date(Date.parse(date) + n * 86_400_000).toISOString().slice(0, 10);
const today = () => {
  const [{ now }] = pair.app.sql<{ now: number }>("SELECT demo_offset_ms AS now FROM business") as [{ now: number }];
  return new Date(Date.now() + now).toISOString().slice(0, 10);
};

interface Somebody {
  visitId: number;
  jobId: number;
  customerId: number;
  name: string;
  phone: string;
  date: string;
}

/** Somebody with a visit some days ahead, a phone of their own, and a yes to reminders. */
function somebody(nth: number): Somebody {
  return pair.app.sql<Somebody>(
    `SELECT v.id AS visitId, j.id AS jobId, c.id AS customerId, c.name, c.phone, v.date
      FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
      WHERE v.state = 'promised' AND j.state = 'agreed' AND j.approval = 'given' AND v.first_visit_id IS NULL AND v.shared_id IS NULL
        AND coalesce(j.reminders, c.reminders) = 1 AND c.phone <> '' AND c.mail NOT LIKE 'bounce%' AND v.confirmed_at IS NULL
        AND (SELECT count(*) FROM customers o WHERE o.phone = c.phone) = 1 AND v.date BETWEEN ? AND ?
        AND NOT EXISTS (SELECT 1 FROM stops WHERE address = c.phone)
        AND (SELECT count(*) FROM jobs o JOIN visits w ON w.job_id = o.id WHERE o.customer_id = c.id AND w.state = 'promised') = 1
      ORDER BY v.window_from, v.id`,
    day(today(), 2),
    day(today(), 12),
  )[nth]!;
}

const written = (customerId: number, kind: string) =>
  pair.app.sql<{ state: string; channel: string; problem: string }>(
    "SELECT state, channel, problem FROM messages WHERE customer_id = ? AND kind = ? ORDER BY id",
    customerId,
    kind,
  );

/** Answers on the stand-in phone. */
async function answerOnPhone(number: string, words: string): Promise<void> {
  const { door, app } = pair;
  await go(door, `${app.url}/standins/text`);
  await door.getByLabel("From another number").fill(number);
  await door.getByLabel("Answer", { exact: true }).fill(words);
  await door.getByRole("button", { name: "Send" }).click();
  await door.getByText(words, { exact: true }).last().waitFor();
}

it("reminds, understands a C, and shows it on the board; STOP ends all of it at once", async () => {
  const { app, office } = pair;
  const one = somebody(0);
  await moveToMorningOf(pair, day(one.date, -1), "19:58");
  await expectSoon(
    office,
    () => written(one.customerId, "visit reminder").some(({ state }) => state === "delivered"),
    frames,
  );
  await answerOnPhone(one.phone, "C");
  await expectSoon(
    office,
    () => app.sql("SELECT 1 FROM visits WHERE id = ? AND confirmed_at IS NOT NULL", one.visitId).length > 0,
    frames,
  );
  await expectSoon(office, () => written(one.customerId, "answer understood").length === 1, frames);
  await go(office, `${app.url}/board?date=${one.date}`);
  await office
    .getByRole("button", { name: new RegExp(`^${one.name}, .*, confirmed\\.`) })
    .first()
    .waitFor();

  await answerOnPhone(one.phone, "STOP");
  await expectSoon(office, () => written(one.customerId, "stopped").some(({ state }) => state !== "waiting"), frames);
  expect(app.sql("SELECT channel FROM stops WHERE address = ?", one.phone)).toEqual([{ channel: "text" }]);
  await go(office, `${app.url}/messages?show=all`);
  await office.getByLabel("Search conversations").fill(one.name);
  await office
    .getByRole("navigation", { name: "Conversations" })
    .getByRole("button", { name: new RegExp(one.name) })
    .click();
  await office.getByText(/read as: confirms/).waitFor();
  await office.getByText(/they have ended texts/).waitFor();
  expect(await findings(office)).toEqual([]);
});

it("a visit that is moved gets the new reminder only", async () => {
  const { app, office } = pair;
  const one = somebody(3);
  const [{ technician }] = app.sql<{ technician: number }>(
    "SELECT technician_id AS technician FROM placements WHERE visit_id = ?",
    one.visitId,
  ) as [{ technician: number }];
  const odile = await as(app.url, "odile");
  const tried = { visitId: one.visitId, fromMinute: 540, toMinute: 660, technicianIds: [technician] };
  let other = "";
  for (let n = 12; n < 26 && !other; n++) {
    const date = day(one.date, n);
    if ((await post(`${app.url}/api/operations/move-visit`, { ...tried, date }, odile)).ok) other = date;
  }
  expect(other).not.toBe("");
  const before = written(one.customerId, "visit reminder").length;
  await moveToMorningOf(pair, one.date, "08:05");
  await expectSoon(office, () => written(one.customerId, "moved").some(({ state }) => state !== "waiting"), frames);
  expect(written(one.customerId, "visit reminder")).toHaveLength(before);
  await moveToMorningOf(pair, day(other, -1), "19:58");
  await expectSoon(office, () => written(one.customerId, "visit reminder").length === before + 1, frames);
});

it("a question at the front door begins a conversation, and is answered; nobody known is matched", async () => {
  const { app, door, office } = pair;
  await go(door, `${app.url}/book`);
  await door.getByText("Ask us something").click();
  await door.getByLabel("Your question").fill("Do you also clean bread ovens?");
  await door.getByLabel("Name").fill("Selma Vance");
  await door.getByRole("button", { name: "Send the question" }).click();
  await door.getByText("Say how we can answer: an email address or a phone number.").waitFor();
  await door.getByLabel("Email").fill("selma@ovens.example");
  expect(await findings(door)).toEqual([]);
  await door.getByRole("button", { name: "Send the question" }).click();
  await door.getByText(/We have your question/).waitFor();

  await go(office, `${app.url}/today`);
  await office
    .getByText(/conversations? waits? for an answer|writes: “Do you also clean bread ovens/)
    .first()
    .click();
  await office
    .getByRole("navigation", { name: "Conversations" })
    .getByRole("button", { name: /Selma Vance/ })
    .click();
  await office.getByRole("log").getByText("Do you also clean bread ovens?").waitFor();
  await office.getByLabel("Subject").fill("Bread ovens");
  await office.getByLabel(/^Write to/).fill("We do, with pleasure.");
  await office.getByRole("button", { name: "Send", exact: true }).click();
  await office.getByRole("log").getByText("We do, with pleasure.").waitFor();
  await expectSoon(
    office,
    () =>
      app.sql("SELECT 1 FROM messages WHERE recipient = 'selma@ovens.example' AND kind = 'by hand' AND state = 'sent'")
        .length === 1,
    frames,
  );

  // They answer by email: it comes into the same conversation.
  await go(door, `${app.url}/standins/mail`);
  await door
    .getByRole("link", { name: /Bread ovens/ })
    .first()
    .click();
  await door.getByLabel("Answer as its reader").fill("Lovely, thank you! When could you come?");
  await door.getByRole("button", { name: "Send", exact: true }).click();
  await door.getByText("Answered").waitFor();
  await office
    .getByRole("log")
    .getByText(/When could you come/)
    .waitFor();
  const who = app.sql<{ id: number; name: string }>(
    "SELECT id, name FROM customers WHERE merged_into IS NULL ORDER BY id LIMIT 1",
  )[0]!;
  await office.getByLabel("This is").fill(who.name);
  await office
    .getByRole("option", { name: new RegExp(who.name) })
    .first()
    .click();
  await office.getByRole("heading", { name: who.name }).waitFor();
  await office.getByRole("log").getByText("Do you also clean bread ovens?").waitFor();
});

it("a text of the owner’s is refused while a customer would read a brace, shown with a preview, and kept with who changed it", async () => {
  const { app, office } = pair;
  await go(office, `${app.url}/setup/occasions?id=visit%20reminder`);
  const words = office.getByRole("region", { name: "Words" });
  const text = words.getByLabel("Text", { exact: true });
  await text.fill("{{business}}: {{surname}}, we come on {{day}}. {{my_link}}");
  await words.getByText("There is no field {{surname}}.").waitFor();
  expect(await words.getByRole("button", { name: "Save", exact: true }).isDisabled()).toBe(true);
  await text.fill("{{business}}: dear {{customer_first}}, we come on {{day}}, {{window}}. {{my_link}} ");
  await words.getByRole("group", { name: "Fields" }).getByText("service", { exact: true }).click();
  await words
    .getByTestId("phone")
    .getByText(/dear \w+, we come on/)
    .waitFor();
  expect(await findings(office)).toEqual([]);
  await words.getByRole("button", { name: "Save", exact: true }).click();
  await office.getByText("Text is saved").waitFor();
  await words.getByText(/What changed and who · 1/).click();
  await words
    .getByText(/Odile Brandt/)
    .first()
    .waitFor();
  await words.getByRole("button", { name: "Back to the starting text" }).click();
  await expectSoon(office, () => app.sql("SELECT 1 FROM templates").length === 0, frames);
});

it("whom no text reaches is called, and confirms by a key; a call that nobody took waits with its recording", async () => {
  const { app, door, office } = pair;
  const one = somebody(1);
  const kind = { occasion: "visit reminder", on: true, channels: ["text", "voice"], each: false, outside: "earlier" };
  await post(`${app.url}/api/operations/save-occasion`, kind, await as(app.url, "odile"));
  await post(`${app.url}/standins/text/way`, { way: "fails" });
  await moveToMorningOf(pair, day(one.date, -1), "19:58");
  await expectSoon(
    office,
    () =>
      written(one.customerId, "visit reminder").some(({ channel, state }) => channel === "voice" && state === "sent"),
    frames,
  );
  expect(written(one.customerId, "visit reminder")[0]).toMatchObject({ channel: "text", state: "failed" });
  await post(`${app.url}/standins/text/way`, { way: "delivers" });
  await go(door, `${app.url}/standins/calls`);
  const call = door.getByRole("group", { name: `Call to ${one.phone}` }).first();
  await call.getByText(/A reminder that/).waitFor();
  expect(await findings(door)).toEqual([]);
  await call.getByRole("button", { name: "Press 1" }).click();
  await call.getByText("pressed 1").waitFor();
  await expectSoon(
    office,
    () => app.sql("SELECT 1 FROM visits WHERE id = ? AND confirmed_at IS NOT NULL", one.visitId).length > 0,
    frames,
  );
  await door.getByLabel("Call the business from").fill(one.phone);
  await door.getByLabel("Say to the machine").fill("Please call me back");
  await door.getByRole("button", { name: "Leave a message" }).click();
  await go(office, `${app.url}/messages?show=waiting`);
  await office
    .getByRole("navigation", { name: "Conversations" })
    .getByRole("button", { name: new RegExp(one.name) })
    .click();
  await office.getByRole("log").getByText("Please call me back").waitFor();
  await office.getByLabel("Recording").waitFor();
});

it("the log says what became of each message, and an address that bounces is told to the office", async () => {
  const { app, office } = pair;
  await go(office, `${app.url}/messages?list=log`);
  await office.getByRole("combobox", { name: "State" }).click();
  await office.getByRole("option", { name: "bounced" }).click();
  await office
    .getByRole("gridcell", { name: /There is no such mailbox/ })
    .first()
    .waitFor();
  expect(await findings(office)).toEqual([]);
  await go(office, `${app.url}/messages?list=figures`);
  await office.getByRole("img", { name: /Week of/ }).waitFor();
  expect(await findings(office)).toEqual([]);
  await go(office, `${app.url}/setup/senders`);
  const texts = office.getByRole("region", { name: "Texts" });
  await texts.getByLabel("Test to this phone").fill("+1 555 0142");
  await texts.getByRole("button", { name: "Test text" }).click();
  await expectSoon(
    office,
    () => app.sql("SELECT 1 FROM messages WHERE kind = 'test' AND state = 'delivered'").length === 1,
    frames,
  );
  expect(await findings(office)).toEqual([]);
});

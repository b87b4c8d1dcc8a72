import { isDeepStrictEqual } from "node:util";
import { pairForTests } from "./support/pair";
import { expectSoon, go, typeDate } from "./support/server";

/** Work that comes back, as the office agrees it and changes it. */
jest.setTimeout(600_000);

const pair = pairForTests();
const sheet = () => pair.office.getByRole("complementary", { name: "Details" });
interface Ahead {
  date: string;
  at: number;
}
const ahead = (id: number) =>
  pair.app.sql<Ahead>(
    "SELECT date, window_from AS at FROM visits WHERE repeat_id = ? AND state = 'forecast' ORDER BY date",
    id,
  );
const one = () =>
  pair.app.sql<{ id: number }>(
    "SELECT id FROM repeats WHERE rule = 'FREQ=WEEKLY;INTERVAL=4' AND state = 'active' ORDER BY id LIMIT 1",
  )[0]!.id;

it("twelve months of a repeat lie ahead; one date is left out, moved, and set back as the rule says", async () => {
  const id = one();
  await go(pair.office, `${pair.app.url}/repeats?open=${id}`);
  await sheet()
    .getByText(/^Every 4 weeks on \w+day/)
    .waitFor();
  await expectSoon(pair.office, () => ahead(id).length >= 12);
  const [, second] = ahead(id) as [Ahead, Ahead];
  const skips = sheet().getByRole("button", { name: "Skip" });
  await skips.nth(1).click();
  await expectSoon(pair.office, () => !ahead(id).some(({ date }) => date === second.date));
  await sheet().getByRole("button", { name: "As the rule says" }).click();
  await sheet().getByRole("button", { name: "As the rule says" }).waitFor({ state: "detached" });
  expect(ahead(id)[1]!.date).toBe(second.date);
  await sheet().getByRole("button", { name: "Change", exact: true }).nth(1).click();
  await sheet().getByLabel("From", { exact: true }).fill("10:10");
  await sheet().getByLabel("Until", { exact: true }).fill("12:10");
  await sheet().getByRole("button", { name: "Do this for this one" }).click();
  await expectSoon(pair.office, () => ahead(id)[1]!.at !== second.at);
});

it("it changes from now on, says before what that does, and is taken back by one tap", async () => {
  const id = one();
  const before = ahead(id).map(({ date }) => date);
  await go(pair.office, `${pair.app.url}/repeats?open=${id}`);
  await sheet().getByRole("button", { name: "Change…" }).click();
  await sheet().getByRole("combobox", { name: "Unit" }).click();
  await pair.office.getByRole("option", { name: "months" }).click();
  await sheet().getByRole("combobox", { name: "Which day" }).click();
  await pair.office.getByRole("option", { name: "on the last working day" }).click();
  await sheet()
    .getByText(/forecasts are laid out anew/)
    .waitFor();
  await sheet().getByRole("button", { name: "Do this" }).click();
  await sheet()
    .getByText(/^Every 4 months on the last working day/)
    .waitFor();
  await pair.office.getByRole("alert").getByRole("button", { name: "Undo" }).click();
  await expectSoon(pair.office, () =>
    isDeepStrictEqual(
      ahead(id).map(({ date }) => date),
      before,
    ),
  );
  await sheet()
    .getByText(/^Every 4 weeks on \w+day/)
    .waitFor();
});

it("it pauses and goes on, ends and is taken up again", async () => {
  const id = one();
  await go(pair.office, `${pair.app.url}/repeats?open=${id}`);
  const [first] = ahead(id) as [Ahead];
  await sheet().getByRole("button", { name: "Pause…" }).click();
  await typeDate(sheet().getByRole("group", { name: "Until" }), first.date);
  await sheet().getByText("1 date does not take place.").waitFor();
  await sheet().getByRole("button", { name: "Pause", exact: true }).click();
  await sheet().getByRole("button", { name: "End the pause" }).waitFor();
  await expectSoon(pair.office, () => !ahead(id).some(({ date }) => date === first.date));
  await sheet().getByRole("button", { name: "End the pause" }).click();
  await expectSoon(pair.office, () => ahead(id).some(({ date }) => date === first.date));
  await sheet().getByRole("button", { name: "End…" }).click();
  await sheet().getByLabel("Why, for ourselves").fill("The oven was sold");
  await sheet().getByRole("button", { name: "End it" }).click();
  await sheet()
    .getByText(/Ended\. The oven was sold\./)
    .waitFor();
  await sheet().getByRole("button", { name: "Resume" }).click();
  await expectSoon(pair.office, () => ahead(id).some(({ date }) => date === first.date));
});

import { findings } from "./support/axe";
import { chooseAt, keepWindow, payWith, sayWho } from "./support/door";
import { pairForTests } from "./support/pair";
import { go, mailedLink, tick } from "./support/server";

/** What a person answers at the front door: wishes, bookings that somebody confirms, and no by the dozen. */
jest.setTimeout(600_000);

const pair = pairForTests();

const jobOf = (mail: string) =>
  pair.app.sql<{ id: number; approval: string; total_minor: number; pays: string; fields: string }>(
    "SELECT j.* FROM jobs j WHERE j.mail = ? ORDER BY j.id DESC",
    mail,
  )[0]!;

it("a wish is told when a window opens, and taken with one tap", async () => {
  await chooseAt(pair.door, pair.app.url, "8 alder", /Smoke draught test/);
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  await pair.door.getByRole("button", { name: "None of these suits me" }).click();
  await pair.door.getByRole("button", { name: "Before noon" }).click();
  expect(await findings(pair.door)).toEqual([]);
  for (const [label, text] of [
    ["Name", "Noor Quinlan"],
    ["Email", "noor.wish@example.com"],
  ] as const)
    await pair.door.getByLabel(label, { exact: true }).fill(text);
  await pair.door.getByLabel("Phone").fill("+1 555 0144");
  await pair.door.getByRole("button", { name: "Tell me when a time comes free" }).click();
  await pair.door.getByText("Thank you. When a time that suits you opens").waitFor();
  // The next look is within minutes of the business's clock.
  await go(pair.office, `${pair.app.url}/today`);
  const clock = pair.office.getByRole("button", { name: "Demo clock" });
  const before = await clock.innerText();
  await clock.click();
  await pair.office.getByRole("menuitem", { name: /next morning/ }).click();
  await pair.office.waitForFunction(
    (words) => document.querySelector("[aria-label='Demo clock']")?.textContent !== words,
    before,
  );
  await go(pair.door, await mailedLink(pair.office, pair.app.url, /Free now.*noor\.wish/s, "wish"));
  await pair.door.getByRole("heading", { name: "Free now" }).waitFor();
  expect(await findings(pair.door)).toEqual([]);
  await pair.door.getByRole("button", { name: "Take it" }).click();
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(pair.app.sql("SELECT outcome FROM requests WHERE mail = 'noor.wish@example.com'")).toEqual([
    { outcome: "booked" },
  ]);
});

it("a booking that a person confirms: pencilled in, another time proposed, accepted by the customer", async () => {
  await chooseAt(pair.door, pair.app.url, "10 alder", /Cowl replacement/);
  await keepWindow(pair.door);
  await sayWho(pair.door, "Pavel Weiss", "pavel.cowl@example.com");
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door
    .getByRole("button", { name: /^Pay .* and book/ })
    .and(pair.door.locator(":enabled"))
    .click();
  await pair.door.getByRole("heading", { name: "We have your booking" }).waitFor();
  await pair.door.getByText(/one of us confirms it soon/).waitFor();

  await go(pair.office, `${pair.app.url}/incoming`);
  await pair.office.getByText("Pavel Weiss").first().click();
  const sheet = pair.office.getByRole("complementary", { name: "Details" });
  await sheet.getByText(/pencilled in for/).waitFor();
  await sheet
    .getByRole("region")
    .or(sheet.locator("section"))
    .filter({ hasText: "Propose another time" })
    .getByRole("button")
    .first()
    .click();
  await sheet.getByRole("button", { name: "Propose it to them" }).click();
  await pair.office.getByText(/is asked whether/).waitFor();
  expect(jobOf("pavel.cowl@example.com").approval).toBe("proposed");

  await pair.door.reload();
  await pair.door.getByRole("heading", { name: "Does this time suit you?" }).waitFor();
  await pair.door.getByRole("button", { name: "This suits me" }).click();
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(jobOf("pavel.cowl@example.com").approval).toBe("given");
});

it("several that wait are declined together, with a reason that the customers read", async () => {
  const counted = () =>
    pair.app.sql(
      "SELECT (SELECT count(*) FROM jobs WHERE approval = 'waiting' AND state <> 'cancelled') AS bookings, (SELECT count(*) FROM requests WHERE outcome = 'open') AS requests, (SELECT count(*) FROM quotes WHERE state IN ('sent', 'accepted', 'declined')) AS quotes",
    )[0] as Record<string, number>;
  const waiting = Object.values(counted()).reduce((a, b) => a + b, 0);
  expect(waiting).toBeGreaterThan(1);
  await go(pair.office, `${pair.app.url}/incoming`);
  await pair.office.locator("[role=row][data-rowindex='0']").waitFor();
  // Repeats that need somebody are chosen too: they are taken on, and not declined.
  await tick(pair.office.getByRole("checkbox", { name: /elect all rows/ }), pair.office.getByText(/^\d+ chosen$/));
  await pair.office.getByRole("button", { name: "Decline…" }).click();
  await pair.office.getByLabel("Reason, as they read it").fill("We are all at the harbour fair that week.");
  await pair.office.getByRole("button", { name: `Decline and tell all ${waiting}` }).click();
  await pair.office.getByText(`${waiting} declined, and told`).waitFor();
  expect(counted()).toEqual({ bookings: 0, requests: 0, quotes: 0 });
});

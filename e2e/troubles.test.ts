import { findings } from "./support/axe";
import { chooseAt, keepWindow, payWith, sayWho } from "./support/door";
import { linkOf } from "./support/http";
import { moveToMorningOf, pairForTests } from "./support/pair";
import { go } from "./support/server";

/** What goes wrong while a customer books and pays on a phone, and the good way on from there. */
jest.setTimeout(600_000);

const pair = pairForTests();

/** As far as the last step, with a window kept. */
async function upToPaying(address: string, name: string, mail: string, ...services: RegExp[]) {
  await chooseAt(pair.door, pair.app.url, address, ...services);
  await keepWindow(pair.door);
  await sayWho(pair.door, name, mail);
}
const press = (name: RegExp | string) =>
  pair.door.getByRole("button", { name }).and(pair.door.locator(":enabled")).click();
const jobsOf = (mail: string) =>
  pair.app.sql<{ id: number; state: string; total_minor: number; deposit_minor: number }>(
    "SELECT * FROM jobs WHERE mail = ?",
    mail,
  );

it("a basket with two deposits: a declined card loses nothing, another one pays and is kept, and later pays the rest with one tap", async () => {
  await upToPaying("12 alder", "Lotte Brandt", "lotte.card@example.com", /Stove service/, /Camera survey/);
  await pair.door.getByRole("button", { name: /^Enter a card to pay €/ }).waitFor();
  await payWith(pair.door, "9900 0000 0000 2004");
  const asked = await pair.door.getByRole("button", { name: /^Pay .* and book/ }).innerText();
  await pair.door.getByLabel(/Keep this card/).check();
  await press(/^Pay .* and book/);
  await pair.door.getByText(/Nothing was charged. Try another card/).waitFor();
  expect(await findings(pair.door)).toEqual([]);
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door.getByLabel(/Keep this card/).check();
  await press(/^Pay €/);
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  const [job] = jobsOf("lotte.card@example.com");
  // What was asked is what both services ask for together: one a sum, the other a quarter of its part.
  const [stove, survey] = pair.app.sql<{ total_minor: number }>(
    "SELECT total_minor FROM job_items WHERE job_id = ? ORDER BY position",
    job!.id,
  );
  expect([stove!.total_minor + survey!.total_minor, job!.deposit_minor, asked]).toEqual([
    job!.total_minor,
    3000 + Math.round(survey!.total_minor / 4),
    `Pay €${(job!.deposit_minor / 100).toFixed(2)} and book`,
  ]);
  await pair.door.getByRole("group", { name: "card ending 1006" }).waitFor();

  // The work is done; what is left is paid without typing the card again.
  const { id: visit, date } = pair.app.sql<{ id: number; date: string }>(
    "SELECT id, date FROM visits WHERE job_id = ?",
    job!.id,
  )[0]!;
  await moveToMorningOf(pair, date);
  await go(pair.office, `${pair.app.url}/board?date=${date}&visit=${visit}`);
  const sheet = pair.office.getByRole("complementary", { name: "Details" });
  for (const button of ["On the way", "On site"]) await sheet.getByRole("button", { name: button }).click();
  const done = sheet.getByRole("button", { name: "Done", exact: true });
  await done.waitFor();
  for (const box of await sheet.getByRole("checkbox").all()) await box.check();
  await done.click();
  await done.waitFor({ state: "detached" });
  await pair.door.reload();
  const rest = job!.total_minor - job!.deposit_minor;
  await press(`Pay €${(rest / 100).toFixed(2)} with the card ending 1006`);
  await pair.door.getByText("Paid in full").waitFor();
  expect(
    pair.app.sql("SELECT sum(amount_minor) AS paid FROM payments WHERE job_id = ? AND state = 'received'", job!.id),
  ).toEqual([{ paid: job!.total_minor }]);
  await pair.door.getByRole("button", { name: "Remove" }).click();
  await pair.door.getByRole("group", { name: "card ending" }).waitFor({ state: "detached" });
});

it("a dropped connection says that nothing was lost; it goes on by itself when it is back, and books once", async () => {
  await upToPaying("16 alder", "Noor Tunnel", "noor.tunnel@example.com", /Smoke draught test/);
  await pair.context.setOffline(true);
  await press("Book");
  await pair.door.getByText(/There is no connection right now. Nothing was lost/).waitFor();
  await pair.door.getByRole("button", { name: "Try again" }).waitFor();
  // The first answer is lost on the way back: it is booked, and the customer does not know.
  let asked = 0;
  await pair.door.route("**/api/operations/book", async (route) => {
    if (asked++ > 0) return route.continue();
    await route.fetch();
    await route.abort("connectionreset");
  });
  await pair.context.setOffline(false);
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  await pair.door.unroute("**/api/operations/book");
  expect([asked > 1, jobsOf("noor.tunnel@example.com").length]).toEqual([true, 1]);
});

it("a window whose minutes are over is booked if it is still free, and says so before", async () => {
  await pair.door.clock.install();
  await upToPaying("18 alder", "Ada Slow", "ada.slow@example.com", /Smoke draught test/);
  await pair.door.getByText(/^kept for \d/).waitFor();
  await pair.door.clock.fastForward("15:00");
  await pair.door.getByText(/It may be taken now; book soon/).waitFor();
  await pair.door.clock.resume();
  await press("Book");
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
  expect(jobsOf("ada.slow@example.com")).toMatchObject([{ state: "agreed" }]);
});

it("a link that the office renews opens nothing any more, and the new one does", async () => {
  const old = pair.door.url();
  const [job] = jobsOf("ada.slow@example.com");
  const { id: visit, date } = pair.app.sql<{ id: number; date: string }>(
    "SELECT id, date FROM visits WHERE job_id = ?",
    job!.id,
  )[0]!;
  await go(pair.office, `${pair.app.url}/board?date=${date}&visit=${visit}`);
  await pair.office.getByRole("button", { name: "End and renew" }).click();
  await pair.office.getByText("The old link is ended; a new one is made").waitFor();
  await go(pair.door, old);
  await pair.door.getByText(/This link is no longer valid/).waitFor();
  await go(pair.door, await linkOf(pair.app.url, job!.id));
  await pair.door.getByRole("heading", { name: "You are booked" }).waitFor();
});

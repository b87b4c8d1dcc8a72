import { deskForTests } from "./support/desk";
import { expectSoon, go } from "./support/server";

/** The dispatcher's day without a mouse. */
jest.setTimeout(600_000);

const at = deskForTests("tomas");

interface Placed {
  id: number;
  date: string;
  name: string;
  technician: string;
  window_from: number;
}
/** Promised visits of one technician on coming days, whoever is alone on them. */
const promised = () =>
  at.app.sql<Placed>(
    `SELECT v.id, v.date, c.name, t.name AS technician, v.window_from FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id JOIN placements p ON p.visit_id = v.id JOIN technicians t ON t.id = p.technician_id
   WHERE v.state = 'promised' AND v.crew = 1 AND j.approval = 'given' AND j.state = 'agreed' AND v.first_visit_id IS NULL AND v.date > (SELECT min(date) FROM visits WHERE state = 'promised') ORDER BY v.date, v.id`,
  );
const holderOf = (id: number) =>
  at.app
    .sql<{ name: string }>(
      "SELECT t.name FROM placements p JOIN technicians t ON t.id = p.technician_id WHERE p.visit_id = ?",
      id,
    )
    .map((t) => t.name)
    .join();
const windowOf = (id: number) =>
  at.app.sql<{ window_from: number }>("SELECT window_from FROM visits WHERE id = ?", id)[0]!.window_from;
const cardOf = (id: number) => at.page.locator(`[data-visit="${id}"]`);

it("days are turned by arrows, a visit is opened by Enter and closed by Escape", async () => {
  const [visit] = promised();
  await go(at.page, `${at.app.url}/board?date=${visit!.date}`);
  await at.page.locator("body").press("ArrowRight");
  await at.page.waitForURL((url) => url.searchParams.get("date")! > visit!.date);
  await at.page.locator("body").press("ArrowLeft");
  await at.page.waitForURL((url) => url.searchParams.get("date") === visit!.date);
  await cardOf(visit!.id).focus();
  await at.page.keyboard.press("Enter");
  const sheet = at.page.getByRole("complementary", { name: "Details" });
  await sheet.getByText(visit!.name).first().waitFor();
  await at.page.keyboard.press("Escape");
  await sheet.waitFor({ state: "detached" });
  expect(new URL(at.page.url()).searchParams.get("visit")).toBeNull();
});

it("a visit is carried to another technician by Space and arrows; it says what that would cost, and Undo takes it back", async () => {
  // The first that somebody else may take within its own window.
  for (const visit of promised()) {
    await go(at.page, `${at.app.url}/board?date=${visit.date}`);
    await cardOf(visit.id).focus();
    await at.page.keyboard.press("Space");
    await at.page
      .getByText(/^\+\d+ min$/)
      .first()
      .waitFor({ timeout: 5_000 })
      .catch(() => {});
    const said = at.page.locator("[id^='DndLiveRegion']");
    for (const arrow of [
      "ArrowDown",
      "ArrowUp",
      "ArrowUp",
      "ArrowUp",
      "ArrowDown",
      "ArrowDown",
      "ArrowDown",
      "ArrowDown",
    ]) {
      await at.page.keyboard.press(arrow);
      await at.page.evaluate(
        () => new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve))),
      );
      if (
        /minutes more driving/.test((await said.textContent()) ?? "") &&
        !(await said.textContent())!.startsWith(visit.technician)
      )
        break;
    }
    const where = (await said.textContent()) ?? "";
    if (!/minutes more driving/.test(where) || where.startsWith(visit.technician)) {
      await at.page.keyboard.press("Escape");
      expect(holderOf(visit.id)).toBe(visit.technician);
      continue;
    }
    const [technician] = where.split(",");
    await at.page.keyboard.press("Space");
    await at.page
      .getByText(`${visit.name} is placed`)
      .or(at.page.getByRole("button", { name: "Leave it" }))
      .first()
      .waitFor();
    // Another window is promised only after a question.
    const asks = at.page.getByRole("button", { name: "Leave it" });
    if (await asks.count()) {
      await asks.click();
      expect([holderOf(visit.id), windowOf(visit.id)]).toEqual([visit.technician, visit.window_from]);
      continue;
    }
    expect([holderOf(visit.id), windowOf(visit.id)]).toEqual([technician, visit.window_from]);
    await at.page.getByRole("button", { name: "Undo" }).click();
    return expectSoon(at.page, () => holderOf(visit.id) === visit.technician);
  }
  throw new Error("No visit of the demo's days can be given to somebody else");
});

it("a customer is found by Ctrl+K and a few letters, and what only asks is found with them", async () => {
  await go(at.page, `${at.app.url}/board`);
  await at.page.keyboard.press("Control+k");
  await at.page.getByRole("combobox").last().fill("selma v");
  await at.page.getByRole("option", { name: /Selma Vance, request/ }).waitFor();
  await at.page.keyboard.press("ArrowDown");
  await at.page.getByRole("option", { name: /Selma Vance, request/ }).click();
  await at.page.waitForURL(/\/incoming\?open=request/);
  await at.page.getByRole("complementary", { name: "Details" }).getByText("I am home from five.").waitFor();
});

import { as, post } from "../support/http";
import { underAttack, visitorAt } from "./attacker";

/** 1: nobody of the office comes by a customer's key but by the operation that is taken down. */
const app = underAttack();

it("a bookkeeper reads everything about a visit, and nothing that opens the customer's page", async () => {
  const { book, jobOf, ask } = visitorAt(app);
  const { link } = (await book("Keyholder Finch")).value;
  const ines = await as(app.url, "ines");
  const [{ id: visitId }] = app.sql<{ id: number }>("SELECT id FROM visits WHERE job_id = ?", jobOf(link)) as [
    { id: number },
  ];
  const sheet = await ask("visit-sheet", { visitId }, ines);
  expect(sheet.ok).toBe(true);
  expect(JSON.stringify(sheet.value)).not.toContain("/my/");
  expect(JSON.stringify(sheet.value)).not.toContain(link.split(".")[1]);
  expect((await ask("customers-page", { jobId: jobOf(link) }, ines)).ok).toBe(true);
  expect((await post(`${app.url}/api/operations/copy-link`, { jobId: jobOf(link) }, ines)).status).toBe(403);
});

it("who copies a link is named, and the link beside whoever acts by it", async () => {
  const { book, jobOf, change } = visitorAt(app);
  const { link } = (await book("Copied Finch", { nth: 2 })).value;
  const copied = await change<{ address: string }>("copy-link", { jobId: jobOf(link) }, await as(app.url, "tomas"));
  expect(copied.value.address).toContain(link);
  expect(app.sql("SELECT kind FROM security_events WHERE kind = 'link copied'")).toHaveLength(1);
  expect((await change("confirm-by-link", {}, { "x-hogar-link": link })).ok).toBe(true);
  expect(app.sql("SELECT actor FROM audit WHERE operation = 'confirm-by-link'")).toEqual([
    { actor: expect.stringMatching(new RegExp(`^customer \\d+ by link ${link.split(".")[0]}$`)) },
  ]);
});

it("somebody who is signed in never acts as the customer, whatever link they send", async () => {
  const { book, jobOf, change } = visitorAt(app);
  const { link } = (await book("Signed Finch", { nth: 4 })).value;
  const answer = await change(
    "cancel-by-link",
    { feeMinor: 0 },
    { ...(await as(app.url, "ines")), "x-hogar-link": link },
  );
  expect([answer.status, answer.problem!.code]).toEqual([403, "as-person"]);
  expect(app.sql("SELECT state FROM jobs WHERE id = ?", jobOf(link))).toEqual([{ state: "agreed" }]);
});

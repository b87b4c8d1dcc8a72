import { deskForTests } from "./support/desk";
import { filesForTests, pixels } from "./support/files";
import { desk, go, openPage, phone, signIn } from "./support/server";

/** Set-up by hand: the business as it is seen, and its people. */
jest.setTimeout(420_000);

const at = deskForTests("odile");
const file = filesForTests();

const save = async (said: string) => {
  await at.page.getByRole("button", { name: "Save", exact: true }).click();
  await at.page.getByText(said).first().waitFor();
};

it("the mark is sent, and stands at the front door; the clock goes by twelve hours everywhere", async () => {
  await go(at.page, `${at.app.url}/setup/business`);
  await at.page.locator("input[type=file]").setInputFiles(file("mark.png", await pixels("#24443F")));
  await at.page.getByRole("img", { name: "Logo" }).waitFor();
  await at.page.getByRole("combobox", { name: "Clock" }).click();
  await at.page.getByRole("option", { name: /12 hours/ }).click();
  await save("Marrowick Hearth & Flue is saved");
  const door = await openPage(at.browser, phone);
  await go(door.page, `${at.app.url}/book`);
  await door.page.locator("header img").waitFor();
  await door.context.close();
  await go(at.page, `${at.app.url}/setup/windows`);
  expect(await at.page.getByLabel("From").first().inputValue()).toBe("7:00 am");
  await go(at.page, `${at.app.url}/setup/business`);
  await at.page.getByRole("combobox", { name: "Clock" }).click();
  await at.page.getByRole("option", { name: /24 hours/ }).click();
  await save("Marrowick Hearth & Flue is saved");
});

it("a permission taken from somebody closes that screen to them", async () => {
  const [ines] = at.app.sql<{ id: number }>("SELECT id FROM people WHERE name = 'Ines Varga'");
  await go(at.page, `${at.app.url}/setup/people?id=${ines!.id}`);
  await at.page.getByLabel("See customers", { exact: true }).click();
  await save("Ines Varga is saved");
  const hers = await openPage(at.browser, desk);
  await signIn(hers.page, at.app.url, "ines");
  await go(hers.page, `${at.app.url}/today`);
  expect(await hers.page.getByRole("navigation", { name: "Places" }).getByRole("link").allInnerTexts()).toEqual([
    "Today",
    "Board",
    "Messages",
    "Money",
  ]);
  await hers.page.goto(`${at.app.url}/customers`);
  await hers.page.waitForURL(/\/today$/);
  await hers.context.close();
});

it("somebody is deactivated with an undo, and categories change their order", async () => {
  const [luca] = at.app.sql<{ id: number }>("SELECT id FROM technicians WHERE name = 'Luca Arden'");
  await go(at.page, `${at.app.url}/setup/technicians?id=${luca!.id}`);
  await at.page.getByRole("button", { name: /^Deactivate/ }).click();
  await at.page.getByText("Luca Arden has left the team.").waitFor();
  // The page shows that it happened before it is taken back: otherwise the old button would do for the new one.
  await at.page.getByRole("button", { name: "Is back on the team" }).waitFor();
  await at.page.getByRole("button", { name: "Undo" }).click();
  await at.page.getByRole("button", { name: /^Deactivate/ }).waitFor();
  expect(at.app.sql("SELECT active FROM technicians WHERE id = ?", luca!.id)).toEqual([{ active: 1 }]);
  await go(at.page, `${at.app.url}/setup/services?id=order`);
  await at.page.getByRole("button", { name: "Stoves earlier" }).click();
  await save("The order is saved");
  expect(
    at.app
      .sql<{ name: string }>("SELECT name FROM categories ORDER BY position")
      .map((c) => c.name)
      .slice(0, 2),
  ).toEqual(["Stoves", "Sweeping"]);
});

import type { Page } from "playwright-core";
import { deskForTests } from "./support/desk";
import { desk, go, openPage, signIn } from "./support/server";

jest.setTimeout(300_000);

const at = deskForTests("odile");
let other: Page;
beforeAll(async () => {
  ({ page: other } = await openPage(at.browser, desk));
  await signIn(other, at.app.url, "odile");
});

const entry = (page: Page, name: string) =>
  page
    .locator("form")
    .getByRole("textbox", { name: new RegExp(`^${name}`) })
    .first();
const save = async (page: Page) => {
  await page.getByRole("button", { name: "Save", exact: true }).click();
};
const saved = (page: Page) =>
  page
    .getByText(/ is saved$/)
    .first()
    .waitFor({ timeout: 20_000 });
const open = async (path: string, names: readonly string[]) => {
  for (const page of [at.page, other]) {
    await go(page, `${at.app.url}/setup/${path}`);
    for (const name of names) await entry(page, name).waitFor({ timeout: 20_000 });
  }
};

it.each([
  ["services?id=1", ["Name", "Code"], ["Chimney swept", "CX"]],
  ["technicians?id=1", ["Name", "Phone"], ["Bram Okafor Vale", "+1 555 0133"]],
  ["extras?id=1", ["Name", "Unit"], ["Cowl, steel", "set"]],
  ["zones?id=1", ["Name", "Postcodes"], ["Harbour", "MW 1*\nMW 99"]],
  ["business", ["Name", "Phone"], ["Marrowick Hearths", "+1 555 0199"]],
  ["people?id=2", ["Name", "Email"], ["Mattis Vale", "mattis.vale@marrowick.example"]],
] as const)("in %s what each of two people changes is kept", async (path, names, words) => {
  await open(path, names);
  await entry(at.page, names[0]).fill(words[0]);
  await entry(other, names[1]).fill(words[1]);
  await save(at.page);
  await saved(at.page);
  await save(other);
  await saved(other);
  await go(at.page, `${at.app.url}/setup/${path}`);
  for (const [i, name] of names.entries()) expect(await entry(at.page, name).inputValue()).toBe(words[i]);
});

it("what both have changed is put side by side, and is what was chosen", async () => {
  await open("extras?id=2", ["Name"]);
  await entry(at.page, "Name").fill("Cap, copper");
  await entry(other, "Name").fill("Cap, brass");
  await save(at.page);
  await saved(at.page);
  await save(other);
  const both = other.getByRole("table", { name: "Changed by both of you" });
  await both.getByText("Cap, copper").waitFor();
  await both.getByRole("radio", { name: "Name: theirs" }).click();
  expect(await entry(other, "Name").inputValue()).toBe("Cap, copper");
  await both.getByRole("radio", { name: "Name: mine" }).click();
  await save(other);
  await saved(other);
  await go(at.page, `${at.app.url}/setup/extras?id=2`);
  expect(await entry(at.page, "Name").inputValue()).toBe("Cap, brass");
});

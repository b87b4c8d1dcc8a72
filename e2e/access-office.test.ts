import { findings } from "./support/axe";
import { deskForTests } from "./support/desk";
import { go } from "./support/server";

jest.setTimeout(900_000);

const at = deskForTests("odile");

it("every screen of the office is free of findings by axe", async () => {
  const found: Record<string, string[]> = {};
  const look = async (path: string, within?: string) => {
    await go(at.page, at.app.url + path);
    if (within) await at.page.locator(`${within} h3`).first().waitFor();
    const here = await findings(at.page, within);
    if (here.length) found[path] = here;
  };
  for (const path of [
    "/today",
    "/board",
    "/incoming",
    "/customers",
    "/customers/1",
    "/import",
    "/repeats",
    "/money",
    "/why-not?address=a1200&service=1",
  ])
    await look(path);
  for (const path of ["/incoming?open=request%202", "/incoming?open=quote%202", "/money?show=all&id=1"])
    await look(path, "aside[aria-label=Details]");
  expect(found).toEqual({});
});

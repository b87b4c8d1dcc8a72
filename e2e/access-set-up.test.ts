import { findings } from "./support/axe";
import { deskForTests } from "./support/desk";
import { go } from "./support/server";

jest.setTimeout(900_000);

const at = deskForTests("odile");

it.each([
  ["the business", ["start", "business", "hours", "technicians?id=1", "services?id=1", "services?id=order", "zones"]],
  ["the front door", ["zones?id=1", "windows", "front-door", "sharing", "coupons?id=1", "people?id=1"]],
])("every screen that sets up %s is free of findings by axe", async (_, paths) => {
  const found: Record<string, string[]> = {};
  for (const path of paths) {
    await go(at.page, `${at.app.url}/setup/${path}`);
    const here = await findings(at.page);
    if (here.length) found[path] = here;
  }
  expect(found).toEqual({});
});

import { chooseAt, payWith, sayWho } from "./door";
import type { Pair } from "./pair";
import { go } from "./server";

/** Types into the owner's booking rules, and saves them. */
export async function changeRules(pair: Pair, type: () => Promise<void>): Promise<void> {
  await go(pair.office, `${pair.app.url}/setup/windows`);
  await type();
  await pair.office.getByRole("button", { name: "Save" }).click();
  await pair.office.getByText(/is saved/).waitFor();
}

/** Books the stove service in a window whose words match, on the first day that has one, until the page that comes afterwards. */
export async function bookStove(
  pair: Pair,
  {
    words,
    address,
    name,
    mail,
    then,
  }: { words: RegExp; address: string; name: string; mail: string; then: string | RegExp },
): Promise<void> {
  await chooseAt(pair.door, pair.app.url, address, /Stove service/);
  await pair.door.getByRole("button", { name: "Choose a time" }).click();
  const windows = pair.door.getByRole("group", { name: /day \d/ }).getByRole("button");
  await windows.first().waitFor();
  while ((await windows.filter({ hasText: words }).count()) === 0)
    await pair.door.getByRole("button", { name: "Later days" }).click();
  await windows.filter({ hasText: words }).first().click();
  await pair.door.getByRole("button", { name: /^Choose \w+day/ }).click();
  await sayWho(pair.door, name, mail);
  await payWith(pair.door, "9900 0000 0000 1006");
  await pair.door
    .getByRole("button", { name: /^Pay .* and book/ })
    .and(pair.door.locator(":enabled"))
    .click();
  await pair.door.waitForURL(then);
}

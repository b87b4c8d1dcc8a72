import type { FrameLocator, Page } from "playwright-core";
import { go } from "./server";

/** The front door as a customer walks through it: where, what, when, who, pay. */

/** Types an address and takes the first that is found. */
export async function findAddress(page: Page | FrameLocator, address: string): Promise<void> {
  await page.locator("html[data-ready]").waitFor({ state: "attached" });
  await page.getByRole("combobox", { name: "Address" }).fill(address);
  await page.getByRole("option").first().click();
}

/** Begins a booking anew: the first address that is found, and services. */
export async function chooseAt(page: Page, url: string, address: string, ...services: RegExp[]): Promise<void> {
  await go(page, `${url}/book`);
  // Whatever somebody has begun here before.
  await page.evaluate(() => sessionStorage.clear());
  await go(page, `${url}/book`);
  await findAddress(page, address);
  await page.getByRole("button", { name: "Continue" }).click();
  for (const name of services) await page.getByRole("checkbox", { name }).click();
}

/** The first window of the last day that is shown, kept. */
export async function keepWindow(page: Page): Promise<void> {
  await page.getByRole("button", { name: "Choose a time" }).click();
  await page
    .getByRole("group", { name: /day \d/ })
    .last()
    .getByRole("button")
    .first()
    .click();
  await page.getByRole("button", { name: /^Choose \w+day/ }).click();
}

/** Types a number into the card service's own form, and waits until that has said that the card can be used. */
export async function payWith(page: Page, number: string): Promise<void> {
  const form = page.frameLocator("iframe[title=Card]");
  await form.locator("html[data-ready]").waitFor({ state: "attached" });
  await form.getByRole("textbox").first().fill(number);
  await form.getByText("The card can be used").waitFor();
}

/** Fills in who one is at the front door, and goes on to the last step. */
export async function sayWho(page: Page, name: string, mail: string): Promise<void> {
  await page.getByRole("textbox", { name: "Name", exact: true }).fill(name);
  await page.getByRole("textbox", { name: "Email", exact: true }).fill(mail);
  await page.getByLabel("Phone").fill("+1 555 0142");
  await page.getByLabel(/^Remind me/).check();
  await page.getByRole("button", { name: "Continue" }).click();
}

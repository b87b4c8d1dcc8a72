import { chromium } from "playwright-core";
interface Shot { url: string; file: string; phone?: boolean; full?: boolean; who?: string; steps?: (page: any) => Promise<void> }
export async function shoot(shots: Shot[], base = "http://localhost:3100") {
  const browser = await chromium.launch({ executablePath: "/usr/bin/chromium", args: ["--headless", "--no-sandbox", "--disable-gpu"] });
  const contexts: Record<string, any> = {};
  for (const s of shots) {
    const who = s.who ?? "odile";
    const key = `${who} ${!!s.phone}`;
    if (!contexts[key]) {
      contexts[key] = await browser.newContext({ viewport: s.phone ? { width: 390, height: 844 } : { width: 1280, height: 800 }, locale: "en-GB" });
      if (who !== "visitor") {
        const p = await contexts[key].newPage();
        await p.goto(`${base}/signin`); await p.locator("html[data-ready]").waitFor();
        await p.getByLabel("Mail").fill(`${who}@marrowick.example`); await p.getByLabel("Password").fill("open the door");
        await p.getByRole("button", { name: "Sign in" }).click(); await p.waitForURL((u: URL) => !u.pathname.startsWith("/signin")); await p.close();
      }
    }
    const page = await contexts[key].newPage(); page.setDefaultTimeout(20000);
    page.on("pageerror", (e: Error) => console.log(s.file, "PAGEERROR", String(e).slice(0, 300)));
    page.on("console", (m: any) => m.type() === "error" && console.log(s.file, "CONSOLE", m.text().slice(0, 300)));
    try {
      await page.goto(base + s.url); await page.locator("html[data-ready]").waitFor();
      await s.steps?.(page); await page.waitForTimeout(900);
      await page.screenshot({ path: `/tmp/${s.file}.png`, fullPage: !!s.full });
    } catch (e) { console.log(s.file, "FAILED", String(e).slice(0, 400)); await page.screenshot({ path: `/tmp/${s.file}.png` }); }
    await page.close();
  }
  await browser.close();
}

import { shoot } from "./shot.tmp.mts";
await shoot([
  { url: "/setup/zones?id=new", file: "z1", steps: async (p) => {
    await p.getByLabel("Name", { exact: true }).fill("West quay");
    await p.getByRole("button", { name: "Draw an area" }).click();
    const box = await p.getByRole("region", { name: "Map of the zones" }).boundingBox();
    for (const [x, y] of [[100, 80], [200, 90], [190, 190], [110, 180], [100, 80]]) { await p.mouse.move(box.x + x, box.y + y); await p.waitForTimeout(120); await p.mouse.click(box.x + x, box.y + y); await p.waitForTimeout(150); }
    await p.waitForTimeout(500);
  } },
  { url: "/setup/people?id=2", file: "z2", full: true },
  { url: "/setup/services?id=order", file: "z3" },
  { url: "/setup/zones", file: "z4", steps: async (p) => { await p.getByLabel("Visits of two weeks").click(); await p.getByRole("combobox", { name: "Try an address" }).fill("1 alder"); await p.getByRole("option").first().click(); await p.getByText(/since its postcode/).waitFor(); } },
  { url: "/today", file: "z5" },
  { url: "/setup/start", file: "z6", full: true },
  { url: "/book", file: "b1", phone: true, who: "visitor", full: true, steps: async (p) => { await p.getByRole("combobox", { name: "Address" }).fill("1 alder"); await p.getByRole("option").first().click(); await p.getByRole("button", { name: "Go on" }).click(); await p.getByRole("radio", { name: /Chimney sweep/ }).waitFor(); } },
]);

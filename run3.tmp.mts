import { shoot } from "./shot.tmp.mts";
await shoot([
  { url: "/setup/zones?id=new", file: "z1", steps: async (p) => {
    await p.getByLabel("Name", { exact: true }).fill("West quay");
    await p.getByRole("button", { name: "Draw an area" }).click();
    await p.waitForTimeout(500);
    const box = await p.getByRole("region", { name: "Map of the zones" }).boundingBox();
    console.log(JSON.stringify(box));
    for (const [x, y] of [[100, 80], [200, 90], [190, 190], [110, 180], [100, 80]]) { await p.mouse.move(box.x + x - 5, box.y + y); await p.mouse.move(box.x + x, box.y + y); await p.waitForTimeout(120); await p.mouse.down(); await p.waitForTimeout(40); await p.mouse.up(); await p.waitForTimeout(150); }
    await p.waitForTimeout(500);
    console.log(await p.evaluate(() => document.querySelector(".leaflet-container")!.innerHTML.length + " " + [...document.querySelectorAll(".leaflet-pane")].map((e) => e.className + ":" + e.children.length).join(" | ")));
  } },
]);

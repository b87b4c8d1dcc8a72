import { readdirSync, statSync } from "node:fs";
import path from "node:path";
import { underAttack, visitorAt } from "./attacker";

/** 13: other users of the machine read nothing of the data folder, while it is written to. */
const app = underAttack();

it("folders are 700 and files 600, those that are new too", async () => {
  await visitorAt(app).book("Filed Finch");
  const wrong = readdirSync(app.folder, { recursive: true, withFileTypes: true }).filter((entry) => {
    const mode = statSync(path.join(entry.parentPath, entry.name)).mode & 0o777;
    return mode !== (entry.isDirectory() ? 0o700 : 0o600);
  });
  expect(wrong.map((entry) => entry.name)).toEqual([]);
  expect(statSync(app.folder).mode & 0o777).toBe(0o700);
});

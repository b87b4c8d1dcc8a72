import { deskForTests } from "./support/desk";
import { filesForTests } from "./support/files";
import { go, typeDate } from "./support/server";

/** Set-up by hand: the map, the week, the team and the services, as an owner tunes them. */
jest.setTimeout(420_000);

const at = deskForTests("odile");
const file = filesForTests();

const save = async (said: string) => {
  await at.page.getByRole("button", { name: "Save", exact: true }).click();
  await at.page.getByText(said).first().waitFor();
};

it("a zone is drawn with the pen, saved, and holds the addresses in it", async () => {
  await go(at.page, `${at.app.url}/setup/zones?id=new`);
  await at.page.getByRole("textbox", { name: "Name", exact: true }).fill("West quay");
  await at.page.getByRole("button", { name: "Draw an area" }).click();
  const map = at.page.getByRole("region", { name: "Map of the zones" });
  await map.locator(".leaflet-overlay-pane path").first().waitFor({ state: "attached" });
  const box = (await map.boundingBox())!;
  // The pen may not be ready for the first point yet: then what was begun is dropped, and drawn again.
  const drawn = at.page.getByRole("button", { name: "Take the area away" });
  for (let tries = 1; tries <= 4 && (await drawn.count()) === 0; tries++) {
    await at.page.keyboard.press("Escape");
    for (const [x, y] of [
      [100, 60],
      [220, 70],
      [200, 190],
      [100, 60],
    ] as const) {
      await at.page.mouse.move(box.x + x - 4, box.y + y);
      await at.page.mouse.move(box.x + x, box.y + y);
      await at.page.mouse.down();
      await at.page.mouse.up();
    }
    await drawn.waitFor({ timeout: 10_000 }).catch(() => {});
  }
  await drawn.waitFor();
  await at.page.getByRole("button", { name: "Done drawing" }).click();
  await save("West quay is saved");
  const [zone] = at.app.sql<{ area: string }>("SELECT area FROM zones WHERE name = 'West quay'");
  const area = JSON.parse(zone!.area) as { type: string; coordinates: number[][][] };
  expect([area.type, area.coordinates.length, area.coordinates[0]!.length]).toEqual(["Polygon", 1, 4]);
});

it("an address says which zone it is in and why, and zones come in from a file", async () => {
  await go(at.page, `${at.app.url}/setup/zones`);
  await at.page.getByRole("combobox", { name: "Try an address" }).fill("1 alder");
  await at.page.getByRole("option").first().click();
  await at.page
    .getByRole("region", { name: "Which zone?" })
    .getByText("since it lies in the area drawn on the map")
    .waitFor();
  await at.page
    .locator("input[type=file]")
    .setInputFiles(file("zones.csv", "zone,postcode,town,priority\nFar moor,MW 408,,2\n,MW 9,,\n"));
  await at.page.getByText("Row 3: the zone has no name.").waitFor();
  await at.page.getByRole("button", { name: "Take 1 zone" }).click();
  await at.page.getByText("1 zone made, 0 changed").waitFor();
  expect(
    at.app.sql(
      "SELECT z.name, z.priority, p.pattern FROM zones z JOIN zone_postcodes p ON p.zone_id = z.id WHERE z.name = 'Far moor'",
    ),
  ).toEqual([{ name: "Far moor", priority: 2, pattern: "MW 408" }]);
});

it("what was typed and not saved is back after a reload, and can be dropped", async () => {
  await go(at.page, `${at.app.url}/setup/business`);
  await at.page.getByRole("textbox", { name: "Name", exact: true }).fill("Marrowick Flues");
  await at.page.getByLabel("Site").fill("marrowick");
  await go(at.page, `${at.app.url}/setup/business`);
  await at.page.getByText("What you typed and had not saved is back.").waitFor();
  expect(await at.page.getByRole("textbox", { name: "Name", exact: true }).inputValue()).toBe("Marrowick Flues");
  await at.page.getByRole("button", { name: "Save", exact: true }).click();
  await at.page.getByText("Write an address such as https://marrowick.example.").waitFor();
  await at.page.getByRole("button", { name: "Drop it" }).click();
  expect([
    await at.page.getByRole("textbox", { name: "Name", exact: true }).inputValue(),
    at.app.sql("SELECT name FROM business"),
  ]).toEqual(["Marrowick Hearth & Flue", [{ name: "Marrowick Hearth & Flue" }]]);
});

it("holidays come from a calendar file, looked over first; a special day has hours of its own", async () => {
  await go(at.page, `${at.app.url}/setup/hours`);
  await at.page
    .locator("input[type=file]")
    .setInputFiles(
      file(
        "holidays.ics",
        [
          "BEGIN:VCALENDAR",
          "VERSION:2.0",
          "PRODID:-//Marrowick//EN",
          "BEGIN:VEVENT",
          "UID:1",
          "SUMMARY:Lantern day",
          "DTSTART;VALUE=DATE:20300102",
          "DTEND;VALUE=DATE:20300104",
          "END:VEVENT",
          "BEGIN:VEVENT",
          "UID:2",
          "SUMMARY:Tide day",
          "DTSTART;VALUE=DATE:20300301",
          "END:VEVENT",
          "END:VCALENDAR",
        ].join("\r\n"),
      ),
    );
  await at.page.getByText("2 January 2030 to 3 January 2030").waitFor();
  await at.page.getByRole("checkbox", { name: /Tide day/ }).click();
  await at.page.getByRole("button", { name: "Close 1 day" }).click();
  await at.page.getByText("1 day is closed now").waitFor();
  await at.page.getByRole("button", { name: "Special day", exact: true }).click();
  const day = at.page.getByRole("group", { name: "New special day" });
  await day.getByLabel("Called").fill("Long evening");
  await day.getByRole("combobox", { name: "Then we are" }).click();
  await at.page.getByRole("option", { name: "open at other hours" }).click();
  const [promised] = at.app.sql<{ date: string }>(
    "SELECT max(date) AS date FROM visits WHERE state = 'promised' AND repeat_id IS NULL",
  );
  await typeDate(day.getByRole("group", { name: "First day" }), promised!.date);
  await day.getByLabel("From").fill("20:00");
  await day.getByLabel("To").fill("22:00");
  await day.getByRole("button", { name: "Save the day" }).click();
  await at.page.getByRole("button", { name: "Save all the same" }).click();
  await at.page.getByText("Long evening is saved").waitFor();
  expect(
    at.app.sql(
      "SELECT name, spans FROM special_days WHERE name IN ('Lantern day', 'Long evening', 'Tide day') ORDER BY name",
    ),
  ).toEqual([
    { name: "Lantern day", spans: "[]" },
    { name: "Long evening", spans: "[[1200,1320]]" },
  ]);
});

it("two weeks beside the rules follow what is typed, before it is saved", async () => {
  await go(at.page, `${at.app.url}/setup/windows`);
  const preview = at.page.getByRole("complementary", { name: "Two weeks as customers see them" });
  await preview.getByText(/ windows offered/).waitFor();
  await at.page.getByLabel("Notice, hours").fill("700");
  await preview.getByText(/· 0 of \d+ windows offered/).waitFor();
  await at.page.getByLabel("Notice, hours").fill("soon");
  await preview.getByText("Mend the entries first; the weeks follow.").waitFor();
  expect(at.app.sql("SELECT notice_minutes FROM business")).toEqual([{ notice_minutes: 120 }]);
});

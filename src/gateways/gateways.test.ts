import type { ChargeOutcome } from "./types";
import type { Point } from "@/core/place/points";
import { makeTown } from "@demo/town";
import fc from "fast-check";
import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import PostalMime from "postal-mime";
import { cardStandin, testCards } from "./cards-standin";
import { exampleFiles, writeExamples } from "./example-files";
import { estimatedRoads } from "./estimated-roads";
import { mailStandin } from "./mail";
import { graphRoads } from "./road-graph";
import { routingServer } from "./routing-server";
import { openStandinStore } from "./standin-store";
import { textStandin } from "./text-standin";
import { townPlaces, townRoads } from "./town";

const folders: string[] = [];
function folder(): string {
  folders.push(mkdtempSync(path.join(tmpdir(), "hogar-standin-")));
  return folders.at(-1)!;
}
afterAll(() => folders.forEach((made) => rmSync(made, { recursive: true })));
const town = makeTown(7);

const referenceOf = (outcome: ChargeOutcome): string => ("reference" in outcome ? outcome.reference : "");

describe("the town", () => {
  const roads = townRoads(town);
  const minutes = (a: Point, b: Point) => roads.minutes(roads.place(a), roads.place(b));
  const some = fc.integer({ min: 0, max: town.addresses.length - 1 }).map((i) => town.addresses[i]!);

  it("has about 2,400 addresses, each of its own", () => {
    expect(town.addresses).toHaveLength(2400);
    expect(new Set(town.addresses.map((a) => a.line)).size).toBe(2400);
    expect(town.addresses.every((a) => /^MW \d{3}$/.test(a.postcode))).toBe(true);
  });

  it("is the same from the same seed", () => {
    expect(makeTown(7)).toEqual(town);
    expect(makeTown(8).addresses).not.toEqual(town.addresses);
  });

  it("has a road from every address to every other, and no way round is shorter than the way", () => {
    fc.assert(
      fc.property(some, some, some, (a, b, c) => {
        const direct = minutes(a, c);
        expect(Number.isInteger(direct) && direct < 120).toBe(true);
        // Whole minutes are rounded up, once for each way.
        expect(direct).toBeLessThanOrEqual(minutes(a, b) + minutes(b, c) + 1);
      }),
    );
  });

  it("takes the ferry to the island: twenty-five minutes more", () => {
    const island = town.addresses.find((a) => a.postcode === "MW 501")!;
    expect(minutes(town.addresses[0]!, island)).toBeGreaterThanOrEqual(25);
  });

  it("finds addresses by the beginnings of their words, in any order", () => {
    const places = townPlaces(town);
    expect(places.suggest("alder 12", 8).map((a) => a.line)).toContain("12 Alder Road, Northfield");
    expect(places.suggest("mw105", 3)).toHaveLength(3);
    expect(places.suggest("   ", 3)).toEqual([]);
    expect(places.suggest("'; DROP TABLE sites; --", 3)).toEqual([]);
    expect(places.find("a1")).toEqual(town.addresses[0]);
    expect(places.find("nowhere")).toBeNull();
  });
});

describe("driving times", () => {
  const at = (lng: number) => ({ lng, lat: 0 });

  it("are those of the shortest way on a graph", () => {
    const { minutes, place } = graphRoads({
      nodes: [at(0), at(1), at(2), at(3)],
      edges: [
        [0, 1, 10],
        [1, 2, 10],
        [0, 2, 25],
        [2, 3, 1],
      ],
    });
    const drive = (from: number, to: number) => minutes(place(at(from)), place(at(to)));
    expect([drive(0, 2), drive(3, 0), drive(1, 1)]).toEqual([20, 21, 0]);
    expect(() => minutes(0, 99)).toThrow("There is no place 99");
  });

  it("are estimated from the straight line where no roads are known, at the slower pace of the two ends", () => {
    const { minutes, place } = estimatedRoads();
    const [town, moor] = [
      { windingFactor: 1.5, kmh: 30 },
      { windingFactor: 1.2, kmh: 60 },
    ];
    // A tenth of a degree at the equator is 11.12 km.
    expect(minutes(place(at(0), moor), place(at(0.1), moor))).toBe(14);
    expect(minutes(place(at(0), town), place(at(0.1), moor))).toBe(34);
    expect(minutes(place(at(0.1), moor), place(at(0), town))).toBe(34);
    expect(place(at(0), moor)).toBe(place(at(0), moor));
  });

  describe("from a routing server", () => {
    const server = (answer: (url: string) => unknown) => {
      const asked: string[] = [];
      const problems: string[] = [];
      const fetched = async (url: string | URL | Request) =>
        (asked.push(String(url)), { status: 200, json: async () => answer(String(url)) }) as unknown as Response;
      return {
        asked,
        problems,
        roads: routingServer("http://roads.example/", estimatedRoads(), fetched as typeof fetch, (p) =>
          problems.push(p),
        ),
      };
    };

    it("are estimated until they are known, asked for once, and told by a new revision", async () => {
      const { roads, asked } = server(() => ({
        code: "Ok",
        durations: [
          [0, 601],
          [540, 0],
        ],
      }));
      const [a, b] = [roads.place(at(0)), roads.place(at(0.1))];
      const estimate = roads.minutes(a, b);
      await roads.settled();
      expect([roads.minutes(a, b), roads.minutes(b, a), roads.revision()]).toEqual([11, 9, 1]);
      expect(estimate).not.toBe(11);
      expect(asked).toEqual(["http://roads.example/table/v1/driving/0,0;0.1,0?annotations=duration"]);
    });

    it("stay estimates where the server does not answer, or knows no way", async () => {
      const silent = server(() => ({ code: "NoTable" }));
      const [a, b] = [silent.roads.place(at(0)), silent.roads.place(at(0.1))];
      const estimate = silent.roads.minutes(a, b);
      await silent.roads.settled();
      expect([silent.roads.minutes(a, b), silent.asked.length, silent.problems.length]).toEqual([estimate, 1, 1]);
      const partly = server(() => ({
        code: "Ok",
        durations: [
          [0, null],
          [540, 0],
        ],
      }));
      partly.roads.minutes(partly.roads.place(at(0)), partly.roads.place(at(0.1)));
      await partly.roads.settled();
      expect(partly.roads.minutes(0, 1)).toBe(estimate);
    });
  });
});

describe("the card stand-in", () => {
  const cards = () => cardStandin(openStandinStore(folder()), "secret");
  const charge = { amountMinor: 4000, currency: "EUR", description: "test" };

  it("gives tokens for its own cards only, and never keeps a number", () => {
    const standin = cards();
    for (const { number } of testCards) expect(standin.tokenFor(number)).toMatch(/^tok_/);
    expect(standin.tokenFor("1234 5678 1234 5678")).toBeNull();
    expect(JSON.stringify(standin.charges())).not.toContain("9900");
  });

  it("charges a key once, whatever is asked again", async () => {
    const standin = cards();
    const token = standin.tokenFor(testCards[0].number)!;
    const [first, again] = [
      await standin.charge({ key: "k", token, ...charge }),
      await standin.charge({ key: "k", token, ...charge, amountMinor: 1 }),
    ];
    expect(again).toEqual(first);
    expect(standin.charges()).toMatchObject([{ amount_minor: 4000, state: "received" }]);
  });

  it("asks for a second step, and tells how it ended in a signed notice, once", async () => {
    const standin = cards();
    const outcome = await standin.charge({ key: "k", token: standin.tokenFor(testCards[2].number)!, ...charge });
    expect(outcome).toMatchObject({ state: "second step", address: expect.stringContaining(referenceOf(outcome)) });
    const notice = standin.settleStep(referenceOf(outcome), true)!;
    expect(JSON.parse(notice.body)).toMatchObject({ key: "k", outcome: { state: "received" } });
    expect(standin.isGenuine(notice.body, notice.signature)).toBe(true);
    expect(standin.isGenuine(notice.body.replace("received", "declined"), notice.signature)).toBe(false);
    expect(standin.settleStep(referenceOf(outcome), false)).toBeNull();
  });

  it("knows that a token is not its own", async () => {
    expect(await cards().charge({ key: "k", token: "forged", ...charge })).toEqual({ state: "unknown card" });
  });
});

describe("the mail stand-in", () => {
  it("writes a real mail, once a key", async () => {
    const mail = mailStandin(folder(), () => "office@marrowick.example", "a key");
    const message = {
      key: "booked 1",
      to: "mira@example.com",
      subject: "Booked: 9–11",
      body: "Hello Mira,\n\nuntil then.",
    };
    expect([await mail.send(message), await mail.send(message)]).toMatchObject([{ state: "sent" }, { state: "sent" }]);
    const [file] = mail.files();
    const parsed = await PostalMime.parse(mail.read(file!.name)!);
    expect(parsed).toMatchObject({
      subject: "Booked: 9–11",
      from: { address: "office@marrowick.example" },
      to: [{ address: "mira@example.com" }],
    });
    expect(parsed.text).toContain("Hello Mira,");
    expect(mail.files()).toHaveLength(1);
  });

  it("lets mails bounce, and reads no other files", async () => {
    const mail = mailStandin(folder(), () => "office@marrowick.example", "a key");
    expect(await mail.send({ key: "k", to: "bounce@example.com", subject: "", body: "" })).toMatchObject({
      state: "bounced",
    });
    expect(mail.read("../services.sqlite")).toBeNull();
  });
});

it("the test phone keeps both sides of a conversation", async () => {
  const phone = textStandin(openStandinStore(folder()));
  await phone.send({ key: "a", to: "+1 555 0142", subject: "", body: "We come tomorrow" });
  phone.answer("+1 555 0142", "Fine", 1);
  expect(phone.conversations()).toEqual([
    {
      number: "+1 555 0142",
      texts: [
        expect.objectContaining({ direction: "to phone" }),
        expect.objectContaining({ direction: "from phone", body: "Fine" }),
      ],
    },
  ]);
  expect(await phone.send({ key: "b", to: "+1 555 0199", subject: "", body: "" })).toMatchObject({ state: "bounced" });
});

describe("files of the demo", () => {
  it("are those of their index, and nothing else of the machine", () => {
    const at = folder();
    const files = exampleFiles(path.join(at, "examples"));
    expect([files.list(), files.read("a.csv")]).toEqual([[], null]);
    writeFileSync(path.join(at, "secret"), "a secret");
    writeExamples(path.join(at, "examples"), [{ name: "a.csv", about: "A list", bytes: Buffer.from("Name\nMira") }]);
    expect(files.list()).toEqual([{ name: "a.csv", about: "A list" }]);
    expect(String(files.read("a.csv"))).toBe("Name\nMira");
    expect([files.read("../secret"), files.read("index.json")]).toEqual([null, null]);
  });
});

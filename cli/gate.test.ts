import { EventEmitter } from "node:events";
import type { Server } from "node:http";
import { middleSigns, openGate, type Turn } from "./gate";

const gate = () => openGate(new EventEmitter() as Server);

describe("the gate", () => {
  it("tells at once whoever would wait too long, visitors first and money last", async () => {
    const { enter } = gate();
    // Nobody leaves: all that is let in waits.
    const answers: Record<Turn, boolean[]> = { 0: [], 1: [], 2: [], 3: [] };
    for (const turn of [3, 2, 1, 0] as const)
      for (let n = 0; n < 400; n++) void enter(turn).then((isIn) => void answers[turn].push(isIn));
    await Promise.resolve();
    const refused = ([0, 1, 2, 3] as const).map((turn) => answers[turn].filter((isIn) => !isIn).length);
    expect(refused[3]).toBeGreaterThan(100);
    expect(refused[0]).toBe(0);
    expect(refused[3]).toBeGreaterThan(refused[2]!);
  });

  it("lets whoever is in the middle of a booking go before those who came earlier", async () => {
    const { enter, leave } = gate();
    const order: string[] = [];
    const go = (turn: Turn, who: string) =>
      enter(turn).then((isIn) => {
        if (!isIn) return;
        order.push(who);
        setImmediate(leave);
      });
    await Promise.all([go(3, "first"), go(3, "second"), go(3, "third"), go(2, "books"), go(0, "pays")]);
    expect(order.indexOf("pays")).toBeLessThan(order.indexOf("books"));
    expect(order.indexOf("books")).toBeLessThan(order.indexOf("third"));
  });

  it("answers everybody where they can be answered", async () => {
    const { enter, leave } = gate();
    const all = await Promise.all(
      Array.from({ length: 40 }, () =>
        enter(3).then((isIn) => {
          if (isIn) leave();
          return isIn;
        }),
      ),
    );
    expect(all.every(Boolean)).toBe(true);
  });
});

it("a sign of somebody in the middle is ours alone, and over after a while", () => {
  let now = 1_000;
  const signs = middleSigns(() => now);
  const sign = signs.give();
  const [until, seal] = sign.split(".");
  expect([
    signs.isOurs(sign),
    signs.isOurs(`${Number(until) + 1}.${seal}`),
    signs.isOurs("1.x"),
    signs.isOurs(""),
  ]).toEqual([true, false, false, false]);
  now += 16 * 60_000;
  expect(signs.isOurs(sign)).toBe(false);
});

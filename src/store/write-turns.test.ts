import { Worker } from "node:worker_threads";
import { makeTurns, turnsOf } from "./write-turns";

/** Another thread that has the turn, and gives it back when it is told. */
function threadWithTheTurn(turns: SharedArrayBuffer): Promise<Worker> {
  const thread = new Worker(
    `const { parentPort, workerData } = require("node:worker_threads");
    const state = new Int32Array(workerData);
    Atomics.store(state, 0, 1);
    parentPort.on("message", () => {
      // Only once somebody stands in the line.
      while (Atomics.load(state, 1) === 0);
      Atomics.store(state, 0, 0);
      Atomics.notify(state, 0, 1);
    });
    parentPort.postMessage("mine");`,
    { eval: true, workerData: turns },
  );
  return new Promise((resolve) => thread.once("message", () => resolve(thread)));
}

describe("writing in turn", () => {
  it("waits for whoever writes, and says that a request waits", async () => {
    const turns = makeTurns();
    const thread = await threadWithTheTurn(turns);
    thread.postMessage("give it back");
    expect(turnsOf(turns, { standsBack: false })(() => "written")).toBe("written");
    await thread.terminate();
    // Nobody waits any more, and the turn is free: a worker goes at once.
    expect([...new Int32Array(turns)]).toEqual([0, 0]);
    expect(turnsOf(turns, { standsBack: true })(() => "next")).toBe("next");
  });

  it("goes on within a turn of one's own, and gives it back when the writing fails", () => {
    const turns = makeTurns();
    const inTurn = turnsOf(turns, { standsBack: false });
    expect(inTurn(() => inTurn(() => "inside"))).toBe("inside");
    const fails = () =>
      inTurn(() => {
        throw new Error("no");
      });
    expect(fails).toThrow("no");
    expect([...new Int32Array(turns)]).toEqual([0, 0]);
  });
});

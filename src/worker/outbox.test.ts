import { drainOutbox } from "@/worker/outbox";
import { one, smallWorld } from "@demo/small-world";

describe("the outbox", () => {
  it("leaves a message whose fate is unknown to a person, where sending twice could harm", async () => {
    const world = smallWorld({
      mail: { repeatable: false, send: async ({ key }) => ({ state: "sent", reference: key }) },
    });
    world.booked();
    world.hogar.store.db.exec("UPDATE outbox SET state = 'leased', leased_until = 1, attempts = 1");
    await drainOutbox(world.hogar);
    expect(world.hogar.store.sql("SELECT channel, state FROM messages ORDER BY channel").all()).toEqual([
      { channel: "mail", state: "not known" },
    ]);
  });

  it("tries again with growing pauses, and gives up in the end", async () => {
    let tries = 0;
    const world = smallWorld({
      mail: {
        repeatable: true,
        send: async () => {
          tries++;
          throw new Error("no answer");
        },
      },
    });
    world.booked();
    await drainOutbox(world.hogar);
    await drainOutbox(world.hogar);
    expect(tries).toBe(1);
    for (let i = 0; i < 20; i++) {
      world.later(61);
      await drainOutbox(world.hogar);
    }
    expect(tries).toBe(8);
    expect(one(world.hogar, "SELECT state, last_problem FROM outbox WHERE state = 'given up'")).toEqual({
      state: "given up",
      last_problem: "no answer",
    });
  });
});

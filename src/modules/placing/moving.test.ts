import { mustPerform } from "@/kernel/operation";
import { drainOutbox } from "@/worker/outbox";
import { office, one, worldWithPost } from "@demo/small-world";
import { moveVisit } from "./operations/move-visit";

/** A booked visit, and its moves by the office; what its customer hears of them by mail. */
async function booked() {
  const world = worldWithPost();
  const { visitId } = world.booked();
  await drainOutbox(world.hogar);
  const changed = ({ store }: typeof world.hogar) =>
    store.audit.under({ at: 1, actor: "test", operation: "test" }, () =>
      store.sql("UPDATE visits SET confirmed_at = 5 WHERE id = ?").run(visitId),
    );
  changed(world.hogar);
  const to = (fromMinute: number) => {
    world.later(0.2);
    mustPerform(
      world.hogar,
      moveVisit,
      { visitId, date: "2027-03-10", fromMinute, toMinute: fromMinute + 120, technicianIds: [1] },
      office,
    );
  };
  const told = () => world.sent.filter(({ way, subject }) => way === "mail" && /moved|new time/i.test(subject));
  return { world, visitId, to, told };
}

it("a move that is taken back within a minute tells the customer nothing, and leaves what they have confirmed", async () => {
  const { world, visitId, to, told } = await booked();
  to(660);
  to(540);
  world.later(5);
  await drainOutbox(world.hogar);
  expect(told()).toEqual([]);
  expect(one(world.hogar, "SELECT confirmed_at FROM visits WHERE id = ?", visitId)).toEqual({ confirmed_at: 5 });
});

it("of two moves within a minute the customer hears once: from what they knew to where it ended", async () => {
  const { world, to, told } = await booked();
  to(660);
  to(780);
  world.later(5);
  await drainOutbox(world.hogar);
  expect(told().map(({ body }) => body.match(/\d+–\d+/g))).toEqual([["9–11"]]);
});

it("a move is told a minute later, and not before", async () => {
  const { world, to, told } = await booked();
  to(660);
  await drainOutbox(world.hogar);
  expect(told()).toEqual([]);
  world.later(1);
  await drainOutbox(world.hogar);
  expect(told()).toHaveLength(1);
});

import { mustPerform } from "@/kernel/operation";
import { moveClock } from "@/modules/business/operations/move-clock";
import { drainOutbox } from "@/worker/outbox";
import { office, smallWorld } from "@demo/small-world";

/** Books with a deposit, lets the worker charge the card, and kills the process before the outcome is taken down. */
const world = smallWorld({}, process.env.HOGAR_DATA!);
const cards = world.hogar.gateways.cards!;
world.hogar.gateways.cards = {
  ...cards,
  async charge(charge) {
    await cards.charge(charge);
    process.kill(process.pid, "SIGKILL");
    return new Promise(() => {});
  },
};
world.booked({ serviceId: world.services.survey, card: "9900000000001006" });
// The next worker runs by the real clock, and must not be early for what was asked in March 2027.
mustPerform(world.hogar, moveClock, { minutes: 200 * 1440 }, office);
// The lease is short, so that the next worker need not wait for it.
await drainOutbox(world.hogar, 300);

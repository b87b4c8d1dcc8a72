import { openHogar } from "@/registry/open-hogar";
import { runDue } from "@/worker/loop";
import { makeTown } from "@demo/town";

/**
 * Works on a collection until nothing is left of it, or until the point at which it is killed: before or after the n-th
 * charge is answered, after the n-th mail has left, or at the n-th look at the clock. `now` is the business's clock in epoch milliseconds; each of these
 * workers lives an hour after the one before, so that the leases of the dead are over.
 */
const [folder, at, life, phase, nth] = process.argv.slice(2) as [string, string, string, string, string];
const realNow = Date.now;
Date.now = () => realNow() + Number(life) * 3_600_000;
let now = Number(at) + Number(life) * 60_000;

let left = Number(nth);
const dieAt = (where: string) => {
  if (where === phase && --left === 0) process.kill(process.pid, "SIGKILL");
};
const clock = () => {
  dieAt("clock");
  return now;
};
const hogar = openHogar({ folder, clock, town: makeTown(7), env: {}, standins: true });
const { cards, mail } = hogar.gateways as Required<{
  [K in "cards" | "mail"]: NonNullable<(typeof hogar.gateways)[K]>;
}>;
hogar.gateways.cards = {
  ...cards,
  async charge(charge) {
    dieAt("before");
    try {
      return await cards.charge(charge);
    } finally {
      dieAt("after");
    }
  },
};
hogar.gateways.mail = {
  ...mail,
  async send(message) {
    const sent = await mail.send(message);
    dieAt("mail");
    return sent;
  },
};
const isOver = () =>
  hogar.store.sql("SELECT 1 FROM collection_runs WHERE ended_at IS NOT NULL").get() !== undefined &&
  hogar.store.sql("SELECT 1 FROM outbox WHERE state IN ('ready', 'leased')").get() === undefined;
for (let turn = 0; turn < 60 && !isOver(); turn++) {
  await runDue(hogar);
  // What did not answer is asked again after a pause.
  now += 10_000;
}
process.exit(isOver() ? 0 : 1);

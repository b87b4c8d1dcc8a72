import { ownOrigin, perform } from "@/kernel/operation";
import { saveExtra } from "@/modules/catalogue/operations/save-extra";
import { saveOpening } from "@/modules/placing/operations/opening";
import { personActor } from "@/core/people/permissions";
import { office, one, smallWorld } from "@demo/small-world";
import { lastChange } from "./meanwhile";

const other = personActor({ id: 1, name: "Jarl Wynn", role: "owner", technicianId: null });
const extra = { unit: "piece", priceMinor: 4900, costMinor: 0, taxBp: 2100, active: true };

function world() {
  const { hogar } = smallWorld();
  const save = (id: number | null, priceMinor: number, since?: number, who = office) =>
    perform(hogar, saveExtra, { ...extra, id, name: `Cowl ${priceMinor}`, priceMinor }, who, { ...ownOrigin, since });
  const made = save(null, 100);
  if (!made.ok) throw new Error(made.problem.sentence);
  return { hogar, save, id: made.value.id, price: () => one(hogar, "SELECT price_minor FROM extras") };
}

it("a form saves over nobody: what was saved of the same thing since it was opened is said, with by whom", () => {
  const { hogar, save, id, price } = world();
  const opened = lastChange(hogar.store);
  expect(save(id, 200, opened, other)).toMatchObject({ ok: true });
  expect(save(id, 300, opened)).toMatchObject({
    problem: {
      code: "changed-meanwhile",
      sentence: expect.stringContaining("Jarl Wynn"),
      details: { asOf: lastChange(hogar.store) },
    },
  });
  expect(price()).toEqual({ price_minor: 200 });
});

it("goes on from what it has saved itself, and from what it has compared with", () => {
  const { hogar, save, id, price } = world();
  const first = save(id, 200, lastChange(hogar.store));
  expect(save(id, 300, (first as { asOf: number }).asOf)).toMatchObject({ ok: true });
  expect(price()).toEqual({ price_minor: 300 });
});

it("minds neither other things, nor other forms, nor what is new", () => {
  const { hogar, save, id } = world();
  const opened = lastChange(hogar.store);
  save(null, 200);
  perform(hogar, saveOpening, { hours: [] }, other);
  expect([save(id, 300, opened), save(null, 400, opened)]).toMatchObject([{ ok: true }, { ok: true }]);
});

it("holds for a form of which there is one", () => {
  const { hogar } = world();
  const opened = lastChange(hogar.store);
  const hours = (closes: number, since?: number) =>
    perform(hogar, saveOpening, { hours: [{ weekday: 0, opens: 480, closes }] }, office, { ...ownOrigin, since });
  hours(900);
  expect(hours(1000, opened)).toMatchObject({ problem: { code: "changed-meanwhile" } });
});

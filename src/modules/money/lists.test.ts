import { invoicesShown, type InvoicesShown, paymentsShown } from "@/core/money/applying";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { firstPage } from "@/ui/first-page";
import { drainOutbox } from "@/worker/outbox";
import { office, one, paymentFor, smallWorld } from "@demo/small-world";
import { recordPayment } from "./operations/record-payment";
import { invoices } from "./views/money";
import { payments } from "./views/payments";

type World = ReturnType<typeof smallWorld>;

function invoicesOf(world: World, show: InvoicesShown) {
  const result = look(world.hogar, invoices, { ...firstPage<"invoices">("number"), show }, office);
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value.rows;
}

/** Three invoices: nothing paid, a part, and all of it. */
function threeInvoices(): World {
  const world = smallWorld();
  const visits = [0, 1, 2].map((n) => world.booked({ name: `Mira Okonjo ${n}`, nth: 12 + n }).visitId);
  for (const [n, visitId] of visits.entries()) {
    world.onTheDayOf(visitId);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    const invoice = one<{ id: number; total_minor: number }>(
      world.hogar,
      "SELECT id, total_minor FROM invoices ORDER BY id DESC LIMIT 1",
    );
    const amountMinor = [0, 1000, invoice.total_minor][n]!;
    if (amountMinor)
      mustPerform(
        world.hogar,
        recordPayment,
        paymentFor(world.hogar, invoice.id, { method: "bank", amountMinor, key: `a form of ${n}` }),
        office,
      );
  }
  return world;
}

it.each([
  ["before they are due", 0],
  ["after", 40 * 24 * 60],
])("the lists of invoices are what each one's state says, %s", (_, minutes) => {
  const world = threeInvoices();
  world.later(minutes);
  const all = invoicesOf(world, "all");
  expect(new Set(all.map((i) => i.state)).size).toBeGreaterThan(1);
  const stillOpen = ["open", "overdue", "part paid"];
  for (const show of invoicesShown)
    expect(invoicesOf(world, show).map((i) => i.id)).toEqual(
      all
        .filter((i) => show === "all" || (show === "open" ? stillOpen.includes(i.state) : i.state === show))
        .map((i) => i.id),
    );
});

it("payments are listed by what became of them, and found by whose they are", async () => {
  const world = smallWorld();
  world.booked({ name: "Mira Okonjo", serviceId: world.services.survey, card: "9900000000001006" });
  world.booked({ name: "Anton Lund", nth: 12, serviceId: world.services.survey, card: "9900000000002004" });
  await drainOutbox(world.hogar);
  const names = (show: (typeof paymentsShown)[number], search = "") => {
    const result = look(world.hogar, payments, { ...firstPage<"payments">("customer"), search, show }, office);
    return result.ok && result.value.rows.map((p) => p.customer);
  };
  expect(names("all")).toEqual(["Anton Lund", "Mira Okonjo"]);
  expect(names("declined")).toEqual(["Anton Lund"]);
  expect(names("not used up")).toEqual(["Mira Okonjo"]);
  expect(names("under way")).toEqual([]);
  expect(names("all", "okon")).toEqual(["Mira Okonjo"]);
});

import { allPermissions, personActor } from "@/core/people/permissions";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { receiveMail } from "@/modules/messages/operations/receive";
import { makeInvoice } from "@/modules/money/operations/billing";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { makeRepeat } from "@/modules/repeats/operations/repeats";
import { localOf } from "@/core/time/local";
import { runDue } from "@/worker/loop";
import { inputsOf, type Schema } from "@demo/schema-inputs";
import { office, one, smallWorld, system } from "@demo/small-world";
import { viewNamed, views } from "./views";

/** Two customers, each with a visit, an invoice, a payment, messages and a repeat: one of the technician, one of somebody else. */
async function twoCustomers() {
  const world = smallWorld();
  const mine = world.booked({ nth: 10, name: "Mira Okonjo" });
  const theirs = world.booked({ nth: 12, name: "Anton Lund", more: { note: "The dog of Lund bites" } });
  const placed = (visitId: number) =>
    one<{ id: number }>(world.hogar, "SELECT technician_id AS id FROM placements WHERE visit_id = ?", visitId).id;
  const other = world.technicians.find((id) => id !== placed(mine.visitId))!;
  const window = world.offers(world.services.sweep, 12)[0]!;
  const minute = (epoch: number) => localOf(epoch, "Europe/Lisbon").minute;
  mustPerform(
    world.hogar,
    moveVisit,
    {
      visitId: theirs.visitId,
      technicianIds: [other],
      date: window.date,
      fromMinute: minute(window.from),
      toMinute: minute(window.to),
    },
    office,
  );
  for (const { visitId, jobId, minor } of [
    { ...mine, minor: 55_501 },
    { ...theirs, minor: 98_765 },
  ]) {
    mustPerform(world.hogar, makeRepeat, { visitId, rule: "FREQ=YEARLY" }, office);
    const { id } = one<{ id: number }>(world.hogar, "SELECT customer_id AS id FROM jobs WHERE id = ?", jobId);
    const { invoiceId } = mustPerform(
      world.hogar,
      makeInvoice,
      {
        customerId: id,
        lines: [{ description: `Work of ${id}`, quantity: 1, unitMinor: minor, taxBp: 0, discountBp: 0 }],
        discountBp: 0,
        before: "",
        after: "",
        dueDate: null,
        key: `invoice of ${id}`,
      },
      office,
    );
    mustPerform(
      world.hogar,
      recordPayment,
      {
        customerId: id,
        invoices: [{ invoiceId, amountMinor: minor - 50_000 }],
        method: "cash",
        amountMinor: minor - 50_000,
        key: `payment of ${id}`,
      },
      office,
    );
  }
  for (const sender of ["mira@example.com", "anton@example.com"])
    mustPerform(
      world.hogar,
      receiveMail,
      { key: sender, sender, senderName: "", subject: "", body: `It bites, says ${sender}`, mailId: null, answers: [] },
      system,
    );
  await runDue(world.hogar);
  const { name, mail, line } = one<{ name: string; mail: string; line: string }>(
    world.hogar,
    "SELECT c.name, c.mail, s.line FROM jobs j JOIN customers c ON c.id = j.customer_id JOIN sites s ON s.id = j.site_id WHERE j.id = ?",
    theirs.jobId,
  );
  const technician = personActor({
    id: 1,
    name: "Bram Okafor",
    role: "technician",
    technicianId: placed(mine.visitId),
    given: allPermissions,
    taken: ["visits.all"],
  });
  return {
    world,
    technician,
    secrets: [name, mail, line, "The dog of", "98765", "48765", "154266", "54266"],
    ofMine: "Mira Okonjo",
  };
}

it("a technician with every other right reads nothing of others’ visits in any list, count or sum", async () => {
  const { world, technician, secrets, ofMine } = await twoCustomers();
  jest.spyOn(console, "error").mockImplementation(() => {});
  const found: string[] = [];
  const answered = new Map<string, string>();
  for (const name of Object.keys(views)) {
    const view = viewNamed(name)!;
    // What anybody may ask says nothing of anybody; what is asked by link is another's.
    if (view.access === "anybody" || view.access === "link") continue;
    for (const input of inputsOf(view.input as Schema, [1, 2, 3])) {
      const result = look(world.hogar, view, input, technician);
      if (!result.ok) continue;
      const said = JSON.stringify(result.value);
      answered.set(name, (answered.get(name) ?? "") + said);
      for (const secret of secrets)
        if (said.includes(secret)) found.push(`${name}: ${secret} by ${JSON.stringify(input)}`);
    }
  }
  expect(found).toEqual([]);
  // What they are shown is theirs, and it is not nothing.
  const shown = [...answered].filter(([, said]) => said.includes(ofMine)).map(([name]) => name);
  expect(shown).toEqual(expect.arrayContaining(["threads", "customers", "find", "repeats", "visit-sheet", "board"]));
});

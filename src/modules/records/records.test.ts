import { fieldChanges } from "@/core/records/changes";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { renewLink } from "@/modules/booking/operations/renew-link";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { firstPage } from "@/ui/first-page";
import { businessInput, office, smallWorld } from "@demo/small-world";
import { securityLog } from "./views/security-log";
import { whoDidWhat } from "./views/who-did-what";

type World = ReturnType<typeof smallWorld>;
const everything = {
  by: "anybody" as const,
  personId: null,
  customerId: null,
  visitId: null,
  operation: null,
  from: null,
  to: null,
};
function entries(world: World, filters: object = {}) {
  const result = look(
    world.hogar,
    whoDidWhat,
    { ...firstPage<"who-did-what">("at", true), ...everything, ...filters },
    office,
  );
  if (!result.ok) throw new Error(result.problem.sentence);
  return result.value.rows;
}

it("tells each change before and after, in words, and no secret", () => {
  const world = smallWorld();
  mustPerform(world.hogar, saveBusiness, { ...businessInput, phone: "+1 555 0188" }, office);
  const [last] = entries(world);
  expect([last!.actor, last!.operation]).toEqual(["person 1 Odile Brandt", "save-business"]);
  expect(last!.changes).toContainEqual({
    of: "business 1",
    field: "phone",
    before: "+1 555 0100",
    after: "+1 555 0188",
  });
  world.booked();
  expect(JSON.stringify(entries(world))).not.toMatch(/nonce|password hash|hold key/);
});

it("is found by person, customer, visit, operation and day", () => {
  const world = smallWorld();
  const mine = world.booked();
  const theirs = world.booked({ nth: 12, name: "Anton Lund" });
  mustPerform(world.hogar, cancelVisit, { visitId: theirs.visitId, refundDeposit: false }, office);
  const { customer_id: customerId } = world.hogar.store
    .sql<{ customer_id: number }>("SELECT customer_id FROM jobs WHERE id = ?")
    .get(theirs.jobId)!;
  const said = (filters: object) => entries(world, filters).map((e) => e.operation);
  expect(said({ customerId })).toEqual(["cancel-visit", "book"]);
  expect(said({ visitId: mine.visitId })).toEqual(["book"]);
  expect(new Set(said({ operation: "book" }))).toEqual(new Set(["book"]));
  expect([
    said({ by: "itself", visitId: theirs.visitId }),
    said({ by: "people", visitId: theirs.visitId }).length,
  ]).toEqual([[], 2]);
  expect(said({ personId: 1, visitId: theirs.visitId })).toEqual(["cancel-visit"]);
  expect([said({ from: "2027-03-10" }), said({ to: "2027-03-08" })]).toEqual([[], []]);
});

it("reads money with its currency and moments in the business's time", () => {
  expect(
    fieldChanges(
      {
        entity: "jobs",
        key: "4",
        before: { id: 4, total_minor: 7900, note: "" },
        after: { id: 4, total_minor: 9900, note: "", booked_at: Date.UTC(2027, 2, 9, 8) },
      },
      { currency: "EUR", timeZone: "Europe/Lisbon" },
    ),
  ).toEqual([
    { of: "job 4", field: "total", before: "€79.00", after: "€99.00" },
    { of: "job 4", field: "booked", before: "–", after: expect.stringContaining("08:00") },
  ]);
});

it("the log of the lock says when a link was ended, and by whom", () => {
  const world = smallWorld();
  const { jobId } = world.booked();
  mustPerform(world.hogar, renewLink, { jobId }, office);
  const log = look(world.hogar, securityLog, { ...firstPage<"security-log">("at", true), kind: "link ended" }, office);
  expect(log).toMatchObject({ value: { count: 1, rows: [{ who: "person 1 Odile Brandt" }] } });
});

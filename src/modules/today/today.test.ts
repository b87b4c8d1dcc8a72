import { personActor } from "@/core/people/permissions";
import { testCards } from "@/gateways/cards-standin";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { payByCard } from "@/modules/money/operations/pay-by-card";
import { recordPayment } from "@/modules/money/operations/record-payment";
import { answerRequests, makeRequest } from "@/modules/requests/operations/requests";
import { recordTimeOff } from "@/modules/team/operations/absences";
import { saveStop } from "@/modules/messages/operations/save-reach";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import { advanceVisit } from "@/modules/visits/operations/advance-visit";
import { runDue } from "@/worker/loop";
import { office, one, paymentFor, smallWorld, visitor } from "@demo/small-world";
import { board } from "@/modules/placing/views/board";
import { ownViews } from "@/registry/modules";

type World = ReturnType<typeof smallWorld>;
const dispatcher = personActor({ id: 2, name: "Tomas", role: "dispatcher", technicianId: null });
const today = (world: World, actor = office) => {
  const view = look(world.hogar, ownViews.today, {}, actor);
  if (!view.ok) throw new Error(view.problem.sentence);
  return view.value;
};
const needs = (world: World, actor = office) =>
  today(world, actor).needs.map(({ kind, words, href }) => ({ kind, words, href }));
const askFor = (world: World, nth: number) =>
  mustPerform(
    world.hogar,
    makeRequest,
    {
      addressId: world.addresses[nth]!.id,
      items: [{ serviceId: world.services.sweep }],
      address: "",
      name: `Asker ${nth}`,
      mail: `a${nth}@example.com`,
      phone: "+1 555 0178",
      wishes: "Soon",
    },
    visitor,
  ).id;

describe("customers whom nobody can reach", () => {
  it("stand there two days before their visit, with why and their number", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const shown = () => needs(world).filter(({ kind }) => kind === "unreachable");
    world.onTheDayOf(visitId);
    expect(shown()).toEqual([]);
    for (const channel of ["mail", "text", "voice"] as const)
      mustPerform(world.hogar, saveStop, { customerId: 1, channel, stopped: true }, office);
    expect(shown()).toMatchObject([{ words: expect.stringContaining("Mira Okonjo cannot be reached") }]);
    const day = look(
      world.hogar,
      board,
      { date: one<{ date: string }>(world.hogar, "SELECT date FROM visits").date },
      office,
    );
    const stops = day.ok ? day.value.technicians.flatMap((technician) => technician.stops) : [];
    expect(stops.map(({ id, unreached }) => [id, unreached])).toEqual([[visitId, true]]);
  });
});

describe("what needs a person today", () => {
  it("is nothing in a business that has only begun, and says that it is fresh", () => {
    const world = smallWorld();
    expect(today(world)).toMatchObject({
      isFresh: true,
      needs: [],
      technicians: [{ name: "Bram Okafor", done: 0, all_visits: 0, next: null }, { name: "Petra Lindqvist" }],
    });
    world.booked();
    expect(today(world)).toMatchObject({ isFresh: false, booked: { n: 1, minor: 7900 } });
  });

  it("is a visit where nobody was home, until it is promised anew; its job is done as any other", async () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    world.onTheDayOf(visitId);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on the way" }, office);
    mustPerform(world.hogar, advanceVisit, { visitId, to: "no access" }, office);
    expect(needs(world)).toMatchObject([{ kind: "nobody home", words: "Nobody was home at Mira Okonjo" }]);
    const place = { technicianIds: [world.technicians[0]!], date: "2027-03-17", fromMinute: 540, toMinute: 660 };
    mustPerform(world.hogar, moveVisit, { visitId, ...place }, office);
    expect(needs(world)).toEqual([]);
    world.onTheDayOf(visitId);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    expect(one(world.hogar, "SELECT state FROM jobs")).toEqual({ state: "done" });
  });

  it("is a visit of a day that is over of which nobody has said how it ended, every day until they do", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    world.at("2027-03-20", 480);
    expect(needs(world)).toMatchObject([{ kind: "not closed", href: `/board?date=2027-03-10&visit=${visitId}` }]);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    expect(needs(world)).toEqual([]);
  });

  it("is what waits in Incoming, the first twelve by name, and gone when it is dealt with", () => {
    const world = smallWorld();
    const ids = Array.from({ length: 14 }, (_, i) => askFor(world, 20 + i));
    expect(needs(world)).toHaveLength(13);
    expect(needs(world).at(0)).toEqual({
      kind: "incoming",
      words: "Asker 20 asks for Chimney sweep",
      href: "/incoming?open=request%201",
    });
    expect(needs(world).at(-1)).toMatchObject({ words: "2 more wait in Incoming", href: "/incoming" });
    mustPerform(world.hogar, answerRequests, { ids }, office);
    expect(needs(world)).toEqual([]);
  });

  it("is a visit that nobody has, where it is on the board", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    for (const technicianId of world.technicians)
      mustPerform(
        world.hogar,
        recordTimeOff,
        { technicianId, firstDate: "2027-03-10", lastDate: "2027-03-10", reason: "Ill" },
        office,
      );
    expect(needs(world)).toEqual([
      { kind: "unplaced", words: "Mira Okonjo has no technician yet", href: `/board?date=2027-03-10&visit=${visitId}` },
    ]);
    world.at("2027-03-10", 480);
    expect(today(world).technicians.map((t) => t.off)).toEqual(["Ill", "Ill"]);
  });

  it("is a promise that is past, with by how much and who", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    const { window_to: end } = one<{ window_to: number }>(
      world.hogar,
      "SELECT window_to FROM visits WHERE id = ?",
      visitId,
    );
    world.at("2027-03-10", 660);
    expect(needs(world).filter((n) => n.kind === "late")).toEqual([]);
    world.later(end - Math.floor(world.hogar.now() / 60_000) + 25);
    expect(needs(world).find((n) => n.kind === "late")!.words).toMatch(
      /^(Bram Okafor|Petra Lindqvist) is 25 min past the window at Mira Okonjo$/,
    );
    mustPerform(world.hogar, advanceVisit, { visitId, to: "on site" }, office);
    expect(needs(world).filter((n) => n.kind === "late")).toEqual([]);
  });

  it("is a card that was declined, until another one has paid", async () => {
    const world = smallWorld();
    const { actor } = world.booked({ serviceId: world.services.survey, card: testCards[1].number });
    await runDue(world.hogar);
    expect(needs(world)).toMatchObject([
      { kind: "failed card", words: "Mira Okonjo: the card for the deposit was declined" },
    ]);
    mustPerform(
      world.hogar,
      payByCard,
      { purpose: "deposit", cardToken: world.hogar.standins!.cards.tokenFor(testCards[0].number)! },
      actor,
    );
    await runDue(world.hogar);
    expect(needs(world)).toEqual([]);
  });

  it("is an invoice past its day, for those who see money", () => {
    const world = smallWorld();
    const { visitId } = world.booked();
    world.at("2027-03-10", 600);
    for (const to of ["on site", "done"] as const) mustPerform(world.hogar, advanceVisit, { visitId, to }, office);
    world.at("2027-04-20", 600);
    expect(needs(world)).toMatchObject([{ kind: "overdue", words: "1 invoice is overdue" }]);
    expect(needs(world, dispatcher)).toEqual([]);
    mustPerform(
      world.hogar,
      recordPayment,
      paymentFor(world.hogar, 1, { method: "bank", amountMinor: 7900, key: "paid by bank" }),
      office,
    );
    expect(needs(world)).toEqual([]);
  });

  it("is a certificate that ends within six weeks", () => {
    const world = smallWorld();
    const hours = [{ weekday: 0, opens: 480, closes: 1020 }];
    const until = (validUntil: string) =>
      mustPerform(
        world.hogar,
        saveTechnician,
        {
          id: world.technicians[1]!,
          name: "Petra Lindqvist",
          phone: "+1 555 0111",
          skills: [{ name: "sweep", level: 1, validUntil }],
          hours,
        },
        office,
      );
    until("2027-06-30");
    expect(needs(world)).toEqual([]);
    until("2027-04-01");
    expect(needs(world)).toEqual([
      {
        kind: "expiring",
        words: "Petra Lindqvist: the certificate “sweep” ends on 1 April 2027",
        href: `/setup/technicians?id=${world.technicians[1]}`,
      },
    ]);
  });

  it("is nobody else's for those who see only their own visits", () => {
    const world = smallWorld();
    askFor(world, 20);
    world.booked();
    const own = personActor({
      id: 3,
      name: "Bram",
      role: "dispatcher",
      technicianId: world.technicians[0]!,
      taken: ["visits.all"],
    });
    expect(today(world, own)).toMatchObject({ needs: [], technicians: [{ name: "Bram Okafor" }] });
  });
});

import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { incoming } from "@/modules/incoming/views/incoming";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { answerRequests, makeRequest } from "@/modules/requests/operations/requests";
import { firstPage } from "@/ui/first-page";
import { office, saidOf, smallWorld, visitor } from "@demo/small-world";

describe("requests from outside the zones", () => {
  const who = {
    address: "",
    name: "Ottilie Fenn",
    mail: "ottilie@example.com",
    phone: "+1 555 0177",
    wishes: "Two flues",
  };
  it("are taken where the owner wants them, wait on the first screen, and are answered once", () => {
    const world = smallWorld();
    const beyond = world.town.addresses.find((a) => a.postcode.startsWith("MW 5"))!;
    expect(saidOf(perform(world.hogar, makeRequest, { addressId: beyond.id, ...who }, visitor))).toBe(
      "This address is not in our zones yet.",
    );
    const { rules } = world.setUp();
    mustPerform(world.hogar, saveBookingRules, { ...rules, outside: "request" }, office);
    const { id } = mustPerform(world.hogar, makeRequest, { addressId: beyond.id, ...who }, visitor);
    expect(saidOf(perform(world.hogar, makeRequest, { addressId: world.addresses[10]!.id, ...who }, visitor))).toMatch(
      /We do come there/,
    );
    const waiting = () => {
      const view = look(world.hogar, incoming, firstPage<"incoming">("at"), office);
      return view.ok ? view.value.rows.map((e) => e.name) : null;
    };
    expect(waiting()).toEqual(["Ottilie Fenn"]);
    mustPerform(world.hogar, answerRequests, { ids: [id] }, office);
    expect(waiting()).toEqual([]);
    expect(perform(world.hogar, answerRequests, { ids: [id] }, office)).toMatchObject({ ok: false });
  });

  it("come from inside too, where no window suits or times are agreed in person", () => {
    const world = smallWorld();
    const ask = (wishes: string) =>
      perform(
        world.hogar,
        makeRequest,
        { ...who, addressId: world.addresses[10]!.id, items: [{ serviceId: world.services.sweep }], wishes },
        visitor,
      );
    expect(saidOf(ask(" "))).toBe("Say which days and times would suit you.");
    expect(ask("Saturdays only").ok).toBe(true);
    mustPerform(world.hogar, saveBookingRules, { ...world.setUp().rules, capacity: "ask" }, office);
    expect(ask("Any morning").ok).toBe(true);
    expect(
      world.hogar.store
        .sql("SELECT about, json_extract(items, '$[0].serviceId') AS service FROM requests ORDER BY id")
        .all(),
    ).toEqual([
      { about: "no window suits", service: world.services.sweep },
      { about: "a time to be agreed", service: world.services.sweep },
    ]);
  });
});

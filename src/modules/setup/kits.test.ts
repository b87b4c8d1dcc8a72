import { mustPerform, perform } from "@/kernel/operation";
import { office, one, smallWorld } from "@demo/small-world";
import { besideKnown, kitNames, readKit } from "./kits";
import { takeKit } from "./operations/take-kit";

describe("starter kits", () => {
  it.each(kitNames())("%s is complete: every service and question of it can be taken", (name) => {
    const world = smallWorld();
    const kit = readKit(name);
    const codes = kit.services.map((s) => s.code);
    expect(new Set(codes).size).toBe(codes.length);
    for (const { extras } of kit.services)
      expect(kit.extras.map((x) => x.name)).toEqual(expect.arrayContaining(extras));
    const { made, there } = mustPerform(world.hogar, takeKit, { kit: name, services: codes, taxBp: 2100 }, office);
    expect(made + there).toBe(codes.length);
    expect(made).toBeGreaterThan(1);
  });

  it("leave alone what is there, and the windows too", () => {
    const world = smallWorld();
    const all = readKit("chimneys-and-stoves").services.map((s) => s.code);
    const before = one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM pattern_parts").n;
    expect(
      mustPerform(world.hogar, takeKit, { kit: "chimneys-and-stoves", services: all, taxBp: 1300 }, office),
    ).toEqual({ made: 2, there: 3, windows: false });
    expect(
      mustPerform(world.hogar, takeKit, { kit: "chimneys-and-stoves", services: all, taxBp: 1300 }, office).made,
    ).toBe(0);
    expect(one(world.hogar, "SELECT price_minor, tax_bp FROM services WHERE code = 'GA'")).toEqual({
      price_minor: 9500,
      tax_bp: 1300,
    });
    expect(one<{ n: number }>(world.hogar, "SELECT count(*) AS n FROM pattern_parts").n).toBe(before);
  });

  it("of two trades may have services of one name, or of one code: each is made, once", () => {
    const known = [
      { code: "HY", name: "Yearly service", category: "Heating" },
      { code: "YS", name: "Yard hire", category: "Sites" },
    ];
    const other = { code: "YS", name: "Yearly service", category: "Cooling" };
    const made = besideKnown(other, known)!;
    expect(made).toEqual({ code: "YA", name: "Yearly service, Cooling" });
    expect(besideKnown(other, [...known, { ...other, ...made }])).toBeNull();
    expect(besideKnown({ code: "YS", name: "Yard sweep", category: "Garden" }, known)).toEqual({
      code: "YA",
      name: "Yard sweep",
    });
    expect(besideKnown({ ...known[0]!, name: "yearly service " }, known)).toBeNull();
  });

  it("of another name are refused", () => {
    expect(
      perform(smallWorld().hogar, takeKit, { kit: "not-a-kit", services: ["AA"], taxBp: 0 }, office),
    ).toMatchObject({ problem: { code: "not-found" } });
    expect(
      perform(smallWorld().hogar, takeKit, { kit: "../package", services: ["AA"], taxBp: 0 }, office),
    ).toMatchObject({ problem: { code: "invalid-input" } });
  });
});

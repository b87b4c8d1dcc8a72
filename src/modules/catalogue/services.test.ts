import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { duplicateService, orderServices, saveService } from "@/modules/catalogue/operations/save-service";
import { priceHistory } from "@/modules/catalogue/views/price-history";
import { servicesAt } from "@/modules/front-door/views/front-door";
import { office, saidOf, serviceInput, smallWorld, visitor } from "@demo/small-world";

describe("services", () => {
  const base = {
    ...serviceInput,
    id: null,
    priceMinor: 9000,
    minutes: 30,
    deposit: { kind: "none" as const, value: 0 },
  };

  it("get an address of their own, are copied whole, and are hidden from those who do not come by it", () => {
    const world = smallWorld();
    const { id } = mustPerform(
      world.hogar,
      saveService,
      {
        ...base,
        code: "OV",
        name: "Oven clean & polish",
        hidden: true,
        limits: { window: 1, day: null, week: 4 },
        windows: [{ kind: "window", weekdays: 31, from: 540, to: 600 }],
      },
      office,
    );
    const names = (slug?: string) => {
      const result = look(
        world.hogar,
        servicesAt,
        { addressId: world.addresses[10]!.id, ...(slug && { slug }) },
        visitor,
      );
      return result.ok ? result.value.services.map((s) => s.name) : [];
    };
    expect(names()).not.toContain("Oven clean & polish");
    expect(names("oven-clean-polish")).toContain("Oven clean & polish");
    const copied = mustPerform(world.hogar, duplicateService, { id }, office).id;
    const copy = world.setUp().services.find((s) => s.id === copied);
    expect(copy).toMatchObject({
      name: "Oven clean & polish, copy",
      code: "OA",
      active: false,
      limits: { window: 1, day: null, week: 4 },
      skills: [{ name: "sweep", level: 1 }],
      windows: [{ from: 540 }],
      slug: "oven-clean-polish-copy",
    });
  });

  it("are shown in the order of their categories, which can be renamed", () => {
    const world = smallWorld();
    mustPerform(world.hogar, saveService, { ...base, code: "GA", name: "Gas check", category: "Gas" }, office);
    const { sweep, survey, guard } = world.services;
    const [gas] = world.setUp().services.filter((s) => s.category === "Gas");
    mustPerform(
      world.hogar,
      orderServices,
      {
        categories: [
          { name: "Gas fires", was: "Gas", services: [gas!.id] },
          { name: "Sweeping", was: "Sweeping", services: [survey, guard, sweep] },
        ],
      },
      office,
    );
    expect(world.setUp().services.map((s) => [s.category, s.name])).toEqual([
      ["Gas fires", "Gas check"],
      ["Sweeping", "Camera survey"],
      ["Sweeping", "Bird guard fitted"],
      ["Sweeping", "Chimney sweep"],
    ]);
    expect(world.setUp().categories.map((c) => c.name)).toEqual(["Gas fires", "Sweeping"]);
  });

  it("remember what they cost, and refuse terms that cannot be", () => {
    const world = smallWorld();
    const { id } = mustPerform(world.hogar, saveService, { ...base, code: "OV", name: "Oven clean" }, office);
    mustPerform(world.hogar, saveService, { ...base, id, code: "OV", name: "Oven clean", priceMinor: 9900 }, office);
    const history = look(world.hogar, priceHistory, { serviceId: id }, office);
    expect(history.ok && history.value.map((h) => [h.beforeMinor, h.afterMinor, h.who])).toEqual([
      [9000, 9900, "Odile Brandt"],
      [null, 9000, "Odile Brandt"],
    ]);
    expect(
      saidOf(
        perform(
          world.hogar,
          saveService,
          { ...base, id, code: "OV", name: "Oven clean", priceKind: "quote", deposit: { kind: "full", value: 0 } },
          office,
        ),
      ),
    ).toMatch(/no deposit yet/);
    expect(
      saidOf(perform(world.hogar, saveService, { ...base, code: "ON", name: "Other", slug: "oven-clean" }, office)),
    ).toMatch(/one of this already/);
  });
});

import { mustPerform, viewContext } from "@/kernel/operation";
import { rehearse } from "@/kernel/rehearse";
import { look } from "@/kernel/view";
import { changeBookingRules } from "@/modules/placing/booking-rules";
import { saveBookingRules } from "@/modules/placing/operations/booking-rules";
import { previewWindows } from "@/modules/setup/views/preview-windows";
import { office, smallWorld, system, visitor } from "@demo/small-world";
import fc from "fast-check";

describe("a rehearsal", () => {
  const rows = (world: ReturnType<typeof smallWorld>) =>
    ["pattern_parts", "business", "limits", "audit", "audit_changes", "plan_changes"].map((table) =>
      JSON.stringify(world.hogar.store.sql(`SELECT * FROM ${table}`).all()),
    );

  it("answers what would be, and leaves nothing of it", () => {
    const world = smallWorld();
    const { rules } = world.setUp();
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 5000 }), fc.integer({ min: 6, max: 15 }), (noticeMinutes, hour) => {
        const before = rows(world);
        const offered = world.offers().length;
        const typed = {
          ...rules,
          noticeMinutes,
          windows: [{ kind: "window" as const, weekdays: 127, from: hour * 60, to: hour * 60 + 120 }],
        };
        const preview = look(
          world.hogar,
          previewWindows,
          { rules: typed, addressId: world.addresses[10]!.id, serviceId: world.services.sweep },
          office,
        );
        expect(preview.ok && preview.value.days).toHaveLength(14);
        expect(preview.ok && preview.value.days.every((d) => d.windows.every((w) => w.from === hour * 60))).toBe(true);
        expect(rows(world)).toEqual(before);
        expect(world.offers()).toHaveLength(offered);
      }),
      { numRuns: 12 },
    );
  });

  it("shows what saving then gives, and comes out as the operation would where it is refused", () => {
    const world = smallWorld();
    const { rules } = world.setUp();
    const typed = { ...rules, noticeMinutes: 26 * 60 };
    const ask = () =>
      look(
        world.hogar,
        previewWindows,
        { rules: typed, addressId: world.addresses[10]!.id, serviceId: world.services.sweep },
        office,
      );
    const before = ask();
    mustPerform(world.hogar, saveBookingRules, typed, office);
    expect(ask()).toEqual(before);
    const odd = {
      rules: { ...rules, windows: [{ kind: "window" as const, weekdays: 1, from: 600, to: 540 }] },
      addressId: world.addresses[10]!.id,
      serviceId: world.services.sweep,
    };
    expect(look(world.hogar, previewWindows, odd, office)).toMatchObject({
      problem: { fields: { "/windows/0": "A window ends after it begins." } },
    });
    expect(
      look(
        world.hogar,
        previewWindows,
        { rules: typed, addressId: world.addresses[10]!.id, serviceId: world.services.sweep },
        visitor,
      ),
    ).toMatchObject({ problem: { code: "not-signed-in" } });
    expect(
      rehearse(
        viewContext(world.hogar, system),
        (context) => changeBookingRules(context, { ...rules, horizonDays: 77 }),
        (context) => context.business.horizon_days,
      ),
    ).toBe(77);
    expect(world.setUp().rules.horizonDays).toBe(30);
  });
});

import { type Access, type Actor, may, permissionsOf, personActor, roles, seesOnly } from "./permissions";

const person = (role: keyof typeof roles): Actor => personActor({ id: 1, name: "Somebody", role, technicianId: null });
const link: Actor = { kind: "link", linkId: 1, jobId: 1, customerId: 1 };

describe("permissions", () => {
  it("give the owner everything, and the technician the field only", () => {
    const all = [...new Set(Object.values(roles).flatMap((r) => r.permissions))];
    expect(all.every((p) => may(person("owner"), p))).toBe(true);
    expect(all.filter((p) => may(person("technician"), p))).toEqual(["field.work"]);
  });

  it("keep money from the dispatcher and the board from the bookkeeper", () => {
    expect([may(person("dispatcher"), "money.change"), may(person("dispatcher"), "board.change")]).toEqual([
      false,
      true,
    ]);
    expect([may(person("bookkeeper"), "money.change"), may(person("bookkeeper"), "board.change")]).toEqual([
      true,
      false,
    ]);
  });

  it("let a link and a visitor do what is meant for them, and never what is the system's", () => {
    const access: Access[] = ["anybody", "link", "system", "office.see"];
    expect(access.map((a) => may(link, a))).toEqual([true, true, false, false]);
    expect(access.map((a) => may({ kind: "visitor" }, a))).toEqual([true, false, false, false]);
    expect(access.map((a) => may(person("owner"), a))).toEqual([true, false, false, true]);
    expect(access.map((a) => may({ kind: "system", name: "worker" }, a))).toEqual([true, true, true, true]);
  });

  it("can be given and taken one by one; what is taken is gone even where it is given too", () => {
    expect(permissionsOf("technician", ["customers.see"], [])).toEqual(["customers.see", "field.work"]);
    expect(permissionsOf("dispatcher", ["money.see"], ["board.change", "money.see"])).not.toContain("money.see");
    expect(permissionsOf("dispatcher", [], ["board.change"])).not.toContain("board.change");
  });

  it("limit somebody to the visits of their own day", () => {
    const limited = (technicianId: number | null) =>
      personActor({ id: 1, name: "Bram", role: "dispatcher", technicianId, taken: ["visits.all"] });
    expect([
      seesOnly(person("dispatcher")),
      seesOnly(limited(7)),
      seesOnly(limited(null)),
      seesOnly({ kind: "system", name: "worker" }),
    ]).toEqual([null, 7, 0, null]);
    // What is nobody's own is for those who see everybody's.
    expect(
      [person("owner"), person("dispatcher"), limited(7), person("bookkeeper"), person("technician"), link].map(
        (actor) => may(actor, "board.change of all"),
      ),
    ).toEqual([true, true, false, false, false, false]);
  });
});

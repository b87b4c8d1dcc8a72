import fc from "fast-check";
import { byUrgency, type NeedKind } from "./urgency";

const today = "2027-03-09";
const kinds: NeedKind[] = [
  "incoming",
  "unplaced",
  "late",
  "failed card",
  "overdue",
  "bounced",
  "expiring",
  "reply",
  "stuck",
];

describe("what needs a person", () => {
  it("begins with who is late, then with promises of today and tomorrow without a technician", () => {
    const needs = [
      { kind: "incoming" as const },
      { kind: "unplaced" as const, date: "2027-03-20" },
      { kind: "unplaced" as const, date: "2027-03-10" },
      { kind: "unplaced" as const, date: "2027-03-09" },
      { kind: "late" as const, date: "2027-03-09" },
    ];
    expect(byUrgency(needs, today).map(({ kind, date }) => `${kind} ${date ?? ""}`.trim())).toEqual([
      "late 2027-03-09",
      "unplaced 2027-03-09",
      "unplaced 2027-03-10",
      "incoming",
      "unplaced 2027-03-20",
    ]);
  });

  it("loses nothing, and keeps the order of what costs the same", () => {
    const list = fc.array(fc.record({ kind: fc.constantFrom(...kinds), n: fc.nat() }));
    fc.assert(
      fc.property(list, (needs) => {
        const ordered = byUrgency(needs, today);
        for (const kind of kinds)
          expect(ordered.filter((n) => n.kind === kind)).toEqual(needs.filter((n) => n.kind === kind));
      }),
    );
  });
});

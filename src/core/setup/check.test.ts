import { contradictions } from "./check";
import { type CheckedService, type CheckedSetup } from "./checked-setup";

const service: CheckedService = {
  id: 1,
  name: "Chimney sweep",
  active: true,
  priceMinor: 7900,
  deposit: { kind: "none", value: 0 },
  skills: [{ skill: "sweep" }],
  technicians: [],
  questions: [],
};
const hours = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 480, closes: 1020 }));
const sound: CheckedSetup = {
  today: "2027-03-09",
  horizonDays: 30,
  services: [service],
  technicians: [
    {
      id: 1,
      name: "Petra Lindqvist",
      skills: [{ skill: "sweep", until: null }],
      hours,
      zones: [],
      services: [],
      offered: true,
    },
  ],
  opening: [],
  zones: [{ id: 1, name: "Northfield", weekdays: 31, technicians: [] }],
  windows: [{ kind: "window", weekdays: 31, from: 540, to: 660 }],
  people: [{ id: 1, name: "Odile Brandt", role: "owner", technicianId: null, active: true, given: [], taken: [] }],
};
const says = (more: Partial<CheckedSetup>) => contradictions({ ...sound, ...more }).map((c) => c.sentence);
const withService = (more: Partial<CheckedService>) => says({ services: [{ ...service, ...more }] });
const withTechnician = (more: Partial<CheckedSetup["technicians"][number]>) =>
  says({ technicians: [{ ...sound.technicians[0]!, ...more }] });
const withZone = (more: Partial<CheckedSetup["zones"][number]>) => says({ zones: [{ ...sound.zones[0]!, ...more }] });

describe("the set-up check", () => {
  it("finds nothing wrong with a sound set-up", () => {
    expect(says({})).toEqual([]);
  });

  it("finds what is missing altogether", () => {
    expect(says({ services: [], technicians: [], zones: [], windows: [] })).toEqual([
      "There is no service that can be booked.",
      "There is nobody on the team.",
      "There is no zone: every address is outside.",
      "There is no window that could be promised.",
    ]);
  });

  it("finds a skill that ends before the bookings it is needed for", () => {
    expect(withTechnician({ skills: [{ skill: "sweep", until: "2027-03-20" }] })).toEqual([
      "Petra Lindqvist’s skill “sweep” ends on 20 March 2027, while bookings are taken beyond it.",
    ]);
    expect(withTechnician({ skills: [{ skill: "sweep", until: "2027-05-20" }] })).toEqual([]);
    expect(withTechnician({ skills: [{ skill: "sweep" }, { skill: "gas", until: "2027-03-20" }] })).toEqual([]);
  });

  it("finds a zone without a technician on its day", () => {
    expect(withZone({ technicians: [7] })[0]).toContain("Northfield is served on Mondays, Tuesdays");
    expect(
      says({
        zones: [{ ...sound.zones[0]!, weekdays: 63 }],
        windows: [{ kind: "window", weekdays: 63, from: 540, to: 660 }],
      }),
    ).toEqual([
      "Northfield is served on Saturdays, but nobody works there then.",
      "Nobody works in the window from 09:00 on Saturdays.",
    ]);
  });

  it("finds a deposit larger than the price", () => {
    expect(withService({ deposit: { kind: "fixed", value: 8000 } })).toEqual([
      "The deposit of “Chimney sweep” is larger than its price.",
    ]);
  });

  it("finds windows in which nobody works", () => {
    expect(
      withTechnician({
        hours: [
          { weekday: 0, opens: 480, closes: 1020 },
          ...[1, 2, 3, 4].map((weekday) => ({ weekday, opens: 700, closes: 1020 })),
        ],
      }),
    ).toEqual(["Nobody works in the window from 09:00 on Tuesdays, Wednesdays, Thursdays and Fridays."]);
  });

  it("finds hours and windows while the business is closed", () => {
    const opening = [0, 1, 2, 3].map((weekday) => ({ weekday, opens: 480, closes: 1020 }));
    expect(says({ opening })).toEqual([
      "Petra Lindqvist works on Fridays for an hour or more while the business is closed.",
      "The window from 09:00 lies outside the opening hours on Fridays.",
    ]);
    expect(says({ opening: [...opening, { weekday: 4, opens: 480, closes: 1020 }] })).toEqual([]);
  });

  it("says nothing of windows that step from before the opening hours into them", () => {
    const steps = [{ kind: "stepping" as const, weekdays: 31, from: 420, to: 720, length: 120, step: 60 }];
    const opening = [0, 1, 2, 3, 4].map((weekday) => ({ weekday, opens: 480, closes: 1020 }));
    expect(says({ opening, windows: steps })).toEqual([]);
    expect(says({ opening, windows: [{ ...steps[0]!, from: 300, to: 480 }] })).toContain(
      "Every window from 05:00 lies outside the opening hours on Mondays, Tuesdays, Wednesdays, Thursdays and Fridays.",
    );
  });

  it("finds who is named for work without its skills, and work that only the office can place", () => {
    expect(withTechnician({ services: [1], skills: [] })).toEqual([
      "Petra Lindqvist is named for “Chimney sweep”, but does not have its skills.",
    ]);
    expect(withTechnician({ offered: false })).toHaveLength(1);
    expect(withTechnician({ zones: [9] })).toEqual([
      "Northfield is served on Mondays, Tuesdays, Wednesdays, Thursdays and Fridays, but nobody works there then.",
    ]);
  });

  it("finds questions that can never be shown", () => {
    expect(
      withService({
        questions: [
          {
            id: "a",
            words: "How high?",
            required: true,
            kind: "count",
            min: 1,
            max: 3,
            shownIf: { question: "gone", is: true },
          },
        ],
      }),
    ).toEqual(["The question “How high?” of “Chimney sweep” can never be shown."]);
  });

  it("finds a person with a role and no way in", () => {
    const bram = {
      id: 2,
      name: "Bram Okafor",
      role: "technician" as const,
      technicianId: null,
      active: true,
      given: [],
      taken: [],
    };
    expect(says({ people: [bram] })).toEqual([
      "Bram Okafor signs in as a technician, but no technician belongs to the sign-in: there is nothing to see.",
    ]);
    expect(says({ people: [{ ...bram, active: false }] })).toEqual([]);
    expect(says({ people: [{ ...bram, taken: ["field.work"] }] })).toEqual([
      "Bram Okafor may sign in, but may see neither the office nor the field.",
    ]);
    expect(says({ people: [{ ...bram, role: "dispatcher", taken: ["visits.all"] }] })).toEqual([
      "Bram Okafor sees only their own visits, but no technician belongs to the sign-in: there are none.",
    ]);
  });
});

import { whoCouldDo } from "./eligible";

const ivo = { id: 1, offered: true, services: [], skills: [{ skill: "sweep", level: 2 }] };
const service = { id: 7, technicians: [], skills: [{ skill: "sweep", level: 2 }] };
const could = (technician: object, of: object = {}) =>
  whoCouldDo([{ ...ivo, ...technician }], { ...service, ...of }, "2027-03-10").length === 1;

describe("who could do a service", () => {
  it("is whoever has its skills, at its level, and valid that day", () => {
    expect(could({})).toBe(true);
    expect(could({ skills: [{ skill: "sweep", level: 1 }] })).toBe(false);
    expect(could({ skills: [{ skill: "sweep", level: 2, until: "2027-03-09" }] })).toBe(false);
  });

  it("is nobody who is limited to other services, or whom the service does not name", () => {
    expect([could({ services: [8] }), could({}, { technicians: [2] })]).toEqual([false, false]);
  });

  it("is nobody whom customers are not offered", () => expect(could({ offered: false })).toBe(false));
});

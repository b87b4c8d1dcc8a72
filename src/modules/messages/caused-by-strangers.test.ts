import { mustPerform, type Origin, perform } from "@/kernel/operation";
import { saveFrontDoor } from "@/modules/front-door/operations/save-front-door";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { makeRequest } from "@/modules/requests/operations/requests";
import { runDue } from "@/worker/loop";
import { office, one, saidOf, system, visitor, worldWithPost } from "@demo/small-world";
import { askQuestion } from "./operations/receive";

type World = ReturnType<typeof worldWithPost>;
const from = (address: string): Origin => ({ address, browser: address, network: address });
const question = (n: number) => ({
  name: "Ada Brome",
  mail: `ada${n}@example.com`,
  phone: "+1 202 555 0149",
  words: "Do you sweep pizza ovens?",
});
const ask = (w: World, n: number, origin = from(`house ${n}`), more: object = {}) =>
  perform(w.hogar, askQuestion, { ...question(n), ...more }, visitor, origin);
const ways = (w: World) => [...new Set(w.sent.map(({ way }) => way))];

/** As many questions as are taken on a day without a code. */
function manyQuestions() {
  const w = worldWithPost();
  for (let n = 0; n < 200; n++) expect(ask(w, n).ok).toBe(true);
  return w;
}

describe("what strangers cause", () => {
  it("is never a text or a call to a number that they have only typed", async () => {
    const w = worldWithPost();
    for (let n = 0; n < 12; n++) ask(w, n);
    w.booked({
      more: { customer: { name: "Ada Brome", mail: "ada@example.com", phone: "+1 202 555 0149", reminders: true } },
    });
    await runDue(w.hogar);
    expect([ways(w), w.sent.length > 5]).toEqual([["mail"], true]);
  });

  it("has an end for one address, but what the office does is always told", async () => {
    const w = worldWithPost();
    const customer = { name: "Ada Brome", mail: "ada@example.com", phone: "+1 202 555 0149", reminders: true };
    const visits = Array.from({ length: 8 }, (_, nth) => w.booked({ nth: 10 + nth, more: { customer } }).visitId);
    await runDue(w.hogar);
    const heard = w.sent.length;
    expect(heard).toBeLessThan(8);
    const place = { technicianIds: [w.technicians[1]!], date: "2027-03-19", fromMinute: 540, toMinute: 660 };
    mustPerform(w.hogar, moveVisit, { visitId: visits[7]!, ...place }, office);
    w.later(1);
    await runDue(w.hogar);
    expect(w.sent.slice(heard).map(({ subject }) => subject)).toEqual([expect.stringMatching(/moved|new time/i)]);
  });

  it("goes by text once they are known, but not to another country", async () => {
    const w = worldWithPost();
    for (const [n, phone] of ["+44 20 7946 0018", "+1 202 555 0149"].entries())
      w.booked({
        as: system,
        nth: 10 + n,
        more: { customer: { name: "Ada Brome", mail: `ada${n}@example.com`, phone, reminders: true } },
      });
    // Until the day before, when they are reminded.
    for (let hour = 9; hour < 20; hour++) {
      w.at("2027-03-09", hour * 60);
      await runDue(w.hogar);
    }
    expect(w.sent.filter(({ way }) => way === "text").map(({ to }) => to)).toEqual(["+1 202 555 0149"]);
  });

  it("is told the office one by one while there is little of it, and as one afterwards", async () => {
    const w = worldWithPost();
    const { frontDoor } = w.setUp();
    mustPerform(w.hogar, saveFrontDoor, { ...frontDoor, tells: [{ way: "mail", to: "us@marrowick.example" }] }, office);
    for (let n = 0; n < 15; n++)
      perform(
        w.hogar,
        makeRequest,
        {
          addressId: w.addresses[10]!.id,
          items: [{ serviceId: w.services.sweep }],
          address: "",
          ...{ name: "Selma Vance", mail: `selma${n}@example.com`, phone: "+1 555 0178", wishes: "Soon" },
        },
        visitor,
        from(`house ${n}`),
      );
    await runDue(w.hogar);
    const told = w.sent.filter(({ to }) => to === "us@marrowick.example");
    expect([told.length, told.at(-1)!.body]).toEqual([7, expect.stringContaining("look at Incoming")]);
  });
});

describe("questions", () => {
  it("from one address are few, whoever they claim to be from, and close the door for nobody else", () => {
    const w = worldWithPost();
    const here = from("one house");
    const answers = Array.from({ length: 12 }, (_, n) => ask(w, n, here));
    expect(answers.filter(({ ok }) => ok)).toHaveLength(10);
    expect(saidOf(answers.at(-1)!)).toMatch(/^You have asked several questions today\. Call us on \+1 555 0100/);
    expect(ask(w, 50).ok).toBe(true);
  });

  it("wait for a code by email when many have come, and say so truly", async () => {
    const w = manyQuestions();
    const codes = () => w.sent.filter(({ subject }) => / is your code$/.test(subject));
    expect(saidOf(ask(w, 500, from("honest"), { mail: "" }))).toMatch(/Many people are writing today/);
    const first = ask(w, 500, from("honest"));
    if (!first.ok || !first.value.codeFor) throw new Error("No code was asked for");
    await runDue(w.hogar);
    const [mail] = codes();
    const code = /^\d{6}/.exec(mail!.subject)![0];
    // The browser brings it back sealed: it can be read by nobody, and counts for this email alone.
    expect(first.value.codeFor).not.toContain(code);
    const bring = (more: object, n = 500) => ask(w, n, from("honest"), { codeFor: first.value.codeFor, ...more });
    expect(bring({ code: code === "000000" ? "000001" : "000000" })).toMatchObject({ value: { wrong: true } });
    expect(bring({ code }, 501)).toMatchObject({ ok: true, value: { codeFor: expect.any(String) } });
    expect(bring({ code })).toEqual({ ok: true, value: {} });
    expect(one(w.hogar, "SELECT sender FROM replies ORDER BY id DESC")).toEqual({ sender: "ada500@example.com" });
  });

  it("of a code that is guessed at there are five tries", async () => {
    const w = manyQuestions();
    const first = ask(w, 500, from("guesser"));
    const codeFor = first.ok ? first.value.codeFor! : "";
    await runDue(w.hogar);
    const right = /^\d{6}/.exec(w.sent.find(({ subject }) => / is your code$/.test(subject))!.subject)![0];
    for (let n = 0; n < 5; n++)
      ask(w, 500, from("guesser"), { codeFor, code: String((Number(right) + 1 + n) % 1_000_000).padStart(6, "0") });
    expect(ask(w, 500, from("guesser"), { codeFor, code: right })).toMatchObject({
      value: { codeFor: expect.any(String) },
    });
    expect(one(w.hogar, "SELECT count(*) AS n FROM replies")).toEqual({ n: 200 });
  });
});

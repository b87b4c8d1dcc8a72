import type { MessageGateway, OutgoingMessage } from "@/gateways/types";
import { addDays } from "@/core/time/dates";
import { localOf } from "@/core/time/local";
import { mustPerform, perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { ownViews } from "@/registry/modules";
import { runDue } from "@/worker/loop";
import { drainOutbox } from "@/worker/outbox";
import { office, one, saidOf, serviceInput, smallWorld, system } from "@demo/small-world";
import { sendNow } from "./operations/send-now";
import { matchThread, openThread, settleThread, snoozeThread, writeByHand, writeNote } from "./operations/conversation";
import { noteDelivery } from "./operations/record-delivery";
import { askQuestion, receiveCall, receiveMail, receiveText } from "./operations/receive";
import { takeAsYes } from "./operations/take-as-yes";
import { saveOccasion, saveTemplate } from "./operations/save-occasion";
import { saveLanguage } from "./operations/save-reach";
import { saveMessageRules } from "./operations/save-rules";
import { thread, threads } from "./views/threads";

type Sent = OutgoingMessage & { way: "mail" | "text" | "voice" };

/** A small business whose messages are kept in a list; `fails` says what becomes of each. */
function world(fails: (message: Sent) => string | null = () => null) {
  const sent: Sent[] = [];
  const gateway = (way: Sent["way"]): MessageGateway => ({
    repeatable: true,
    async send(message) {
      const problem = fails({ ...message, way });
      if (problem) return { state: "bounced", problem };
      if (!sent.some(({ key }) => key === message.key)) sent.push({ ...message, way });
      return { state: "sent", reference: message.key };
    },
  });
  const w = smallWorld({ mail: gateway("mail"), text: gateway("text"), voice: gateway("voice") });
  const booked = w.booked({ as: system, window: w.offers().at(-1) as never });
  const { phone, mail } = one<{ phone: string; mail: string }>(w.hogar, "SELECT phone, mail FROM customers");
  const visit = () =>
    one<{ date: string; window_from: number; confirmed_at: number | null }>(
      w.hogar,
      "SELECT date, window_from, confirmed_at FROM visits WHERE id = ?",
      booked.visitId,
    );
  const waiting = () => {
    const view = look(w.hogar, threads, { show: "waiting", search: "", more: 0 }, office);
    return view.ok ? view.value.rows.map(({ name, words }) => [name, words]) : [];
  };
  let nth = 0;
  const text = (body: string, sender = phone) =>
    mustPerform(w.hogar, receiveText, { key: `t${nth++}`, sender, body }, system);
  /** The worker's turns, hour by hour, until a moment (minutes of the visit's window). */
  const untilBefore = async (minutes: number) => {
    const end = (visit().window_from - minutes) * 60_000;
    while (w.hogar.now() < end) {
      w.later(Math.min(60, Math.ceil((end - w.hogar.now()) / 60_000)));
      await runDue(w.hogar);
    }
  };
  const of = (kind: string) =>
    w.hogar.store
      .sql<{ channel: string; state: string; problem: string }>(
        "SELECT channel, state, problem FROM messages WHERE kind = ? ORDER BY id",
      )
      .all(kind);
  return { ...w, ...booked, sent, phone, mail, visit, waiting, text, untilBefore, of };
}

const rules = { from: 480, to: 1200, mostADay: 4, language: "en" as const, partMilli: 0, countsOpened: false };
const rule = (more: object) => ({
  id: null,
  daysBefore: null,
  at: null,
  minutesBefore: null,
  outside: "earlier" as const,
  asks: false,
  ...more,
});

describe("a reminder", () => {
  it("comes once for each rule, and not again though the worker dies in between and looks often", async () => {
    const w = world();
    mustPerform(
      w.hogar,
      saveMessageRules,
      { ...rules, rules: [rule({ daysBefore: 1, at: 1020 }), rule({ minutesBefore: 120, outside: "later" })] },
      office,
    );
    await w.untilBefore(90);
    w.hogar.store.db.exec(
      "UPDATE reminder_looks SET looked_at = 0, next_at = 0; UPDATE outbox SET state = 'leased', leased_until = 1 WHERE state = 'done' AND 0",
    );
    await runDue(w.hogar);
    expect(w.sent.filter(({ body }) => /reminder/.test(body)).map(({ way }) => way)).toEqual(["text", "text"]);
  });

  it("comes once where a server stood while several of its moments passed", async () => {
    const w = world();
    mustPerform(
      w.hogar,
      saveMessageRules,
      { ...rules, rules: [rule({ daysBefore: 1, at: 1020 }), rule({ minutesBefore: 120, outside: "later" })] },
      office,
    );
    await runDue(w.hogar);
    w.at(w.visit().date, localOf(w.visit().window_from, "Europe/Lisbon").minute - 90);
    for (let i = 0; i < 3; i++) await runDue(w.hogar);
    expect(w.of("visit reminder")).toHaveLength(1);
  });

  it("falls by the clock of whoever it is for", async () => {
    const w = world();
    mustPerform(w.hogar, saveMessageRules, { ...rules, rules: [rule({ daysBefore: 1, at: 1020 })] }, office);
    await runDue(w.hogar);
    mustPerform(w.hogar, saveLanguage, { customerId: 1, language: null, timeZone: "Europe/Istanbul" }, office);
    // Five in the afternoon there is two here.
    w.at(addDays(w.visit().date, -1), 14 * 60 + 5);
    for (let i = 0; i < 3; i++) await runDue(w.hogar);
    expect(w.of("visit reminder")).toMatchObject([{ state: "sent" }]);
  });

  it("that waits for the morning goes at once where somebody of the office says so", async () => {
    const w = world();
    await runDue(w.hogar);
    w.at("2027-03-09", 1380);
    const later = {
      technicianIds: [w.technicians[0]!],
      date: addDays(w.visit().date, 7),
      fromMinute: 540,
      toMinute: 660,
    };
    mustPerform(w.hogar, moveVisit, { visitId: w.visitId, ...later }, office);
    w.later(1);
    await runDue(w.hogar);
    const text = () => w.of("moved").find(({ channel }) => channel === "text");
    expect([w.of("moved").find(({ channel }) => channel === "mail")?.state, text()?.state]).toEqual([
      "sent",
      "waiting",
    ]);
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM messages WHERE kind = 'moved' AND channel = 'text'");
    const { threadId } = mustPerform(w.hogar, openThread, { customerId: w.actor.customerId }, office);
    mustPerform(w.hogar, sendNow, { threadId, messageId: id }, office);
    w.later(1);
    await runDue(w.hogar);
    expect(text()?.state).toBe("sent");
  });

  it("that a visit was moved is in one language throughout, its service and its old time too", async () => {
    const w = world();
    mustPerform(w.hogar, saveLanguage, { customerId: 1, language: "es", timeZone: null }, office);
    const sweep = { ...serviceInput, id: 1, code: "SW", name: "Chimney sweep", priceMinor: 7900, minutes: 60 };
    mustPerform(w.hogar, saveService, { ...sweep, otherNames: { es: "Deshollinado" } }, office);
    mustPerform(
      w.hogar,
      moveVisit,
      { visitId: w.visitId, date: "2027-03-19", fromMinute: 540, toMinute: 660, technicianIds: [1] },
      office,
    );
    w.later(1);
    await runDue(w.hogar);
    const { body } = w.sent.find(({ way, language }) => way === "mail" && language === "es")!;
    expect(body).toMatch(/antes: \S+ \d+ de marzo, \S+\d/);
    expect(body).not.toMatch(/March|day\b/);
    w.booked({ as: system });
    await runDue(w.hogar);
    const mail = w.sent.findLast(({ way }) => way === "mail")!;
    expect([mail.language, mail.body]).toEqual(["es", expect.stringContaining("Deshollinado")]);
  });

  it("of a visit that was moved is the new one alone, and of a cancelled one none", async () => {
    const w = world();
    const before = w.visit();
    const other = { date: "2027-03-19" };
    await w.untilBefore(26 * 60);
    const move = {
      visitId: w.visitId,
      date: other.date,
      fromMinute: 540,
      toMinute: 660,
      technicianIds: [1],
    };
    mustPerform(w.hogar, moveVisit, move, office);
    await w.untilBefore(60);
    expect(w.visit().window_from).not.toBe(before.window_from);
    expect(w.of("visit reminder")).toEqual([{ channel: "text", state: "sent", problem: "" }]);

    const gone = world();
    await gone.untilBefore(30 * 60);
    mustPerform(gone.hogar, cancelVisit, { visitId: gone.visitId, refundDeposit: false }, office);
    gone.later(3 * 1440);
    await runDue(gone.hogar);
    expect(gone.of("visit reminder")).toEqual([]);
  });

  it("is not sent to whoever takes their consent back between the writing and the sending", async () => {
    const w = world();
    await w.untilBefore(26 * 60);
    w.later(4 * 60);
    const { sql, db, audit } = w.hogar.store;
    // Written, and not sent yet.
    const { remindOfVisits } = await import("./operations/write-reminders");
    mustPerform(w.hogar, remindOfVisits, { customerId: 1 }, system);
    expect(w.of("visit reminder")).toMatchObject([{ state: "waiting" }]);
    db.transaction(() =>
      audit.under({ at: 1, actor: "test", operation: "test" }, () => sql("UPDATE jobs SET reminders = 0").run()),
    )();
    await drainOutbox(w.hogar);
    expect(w.of("visit reminder").at(-1)).toMatchObject({ state: "dropped", problem: "not agreed to" });
    expect(w.sent.filter(({ body }) => /reminder/.test(body))).toEqual([]);
  });

  it("goes by the next channel where one fails at once or later, to a landline by a call", async () => {
    const w = world(({ way, body }) =>
      way === "text" && /reminder/.test(body) ? "A landline, which takes no texts" : null,
    );
    mustPerform(
      w.hogar,
      saveOccasion,
      { occasion: "visit reminder", on: true, channels: ["text", "voice", "mail"], each: false, outside: "earlier" },
      office,
    );
    await w.untilBefore(60);
    expect(w.of("visit reminder")).toMatchObject([
      { channel: "text", state: "bounced" },
      { channel: "voice", state: "sent" },
    ]);
    const { occasion } = one<{ occasion: string }>(w.hogar, "SELECT occasion FROM messages WHERE channel = 'voice'");
    const state = { channel: "voice" as const, reference: `message ${occasion}`, state: "failed" as const };
    mustPerform(w.hogar, noteDelivery, state, system);
    mustPerform(w.hogar, noteDelivery, state, system);
    await runDue(w.hogar);
    expect(w.of("visit reminder").map(({ channel, state: became }) => [channel, became])).toEqual([
      ["text", "bounced"],
      ["voice", "failed"],
      ["mail", "sent"],
    ]);
  });
});

describe("an answer", () => {
  it("of yes confirms the visit and is thanked for; the same one again counts once", async () => {
    const w = world();
    await w.untilBefore(60 * 20);
    for (let i = 0; i < 2; i++) mustPerform(w.hogar, receiveText, { key: "same", sender: w.phone, body: "C" }, system);
    await runDue(w.hogar);
    expect(w.visit().confirmed_at).not.toBeNull();
    expect(w.of("answer understood")).toHaveLength(1);
    expect(w.waiting()).toEqual([]);
  });

  it("that wishes to move gets the link to real windows, and waits for a person", async () => {
    const w = world();
    w.text("C. But could you come an hour later?");
    await runDue(w.hogar);
    expect(w.sent.at(-1)).toMatchObject({
      way: "text",
      body: expect.stringMatching(/another time or cancel here: http/),
    });
    expect(w.waiting()).toEqual([["Mira Okonjo", "C. But could you come an hour later?"]]);
  });

  it("of STOP ends texts at once, START begins them again, and both are confirmed and kept", async () => {
    const w = world();
    w.text("STOP");
    await runDue(w.hogar);
    expect(w.sent.at(-1)!.body).toMatch(/no more texts/);
    await w.untilBefore(60);
    expect(w.of("visit reminder")).toMatchObject([
      { channel: "text", state: "dropped" },
      { channel: "mail", state: "sent" },
    ]);
    w.text("start");
    await runDue(w.hogar);
    expect(w.sent.at(-1)!.body).toMatch(/get our texts again/);
    expect(w.hogar.store.sql("SELECT 1 FROM stops").all()).toEqual([]);
    expect(
      w.hogar.store.sql("SELECT kind, given, words, channel FROM consents WHERE channel IS NOT NULL ORDER BY id").all(),
    ).toHaveLength(3);
  });

  it("of STOP by email is read by a person: bills go there too", () => {
    const w = world();
    const mail = { key: "m1", sender: w.mail, senderName: "", subject: "Re", body: "Stop", mailId: null, answers: [] };
    mustPerform(w.hogar, receiveMail, mail, system);
    expect([w.waiting(), w.hogar.store.sql("SELECT 1 FROM stops").all()]).toEqual([[["Mira Okonjo", "Stop"]], []]);
  });

  it("by email is matched by its headers; from an address that is not theirs it waits beside the conversation, and does nothing", async () => {
    const w = world();
    await runDue(w.hogar);
    const { reference } = one<{ reference: string }>(w.hogar, "SELECT reference FROM messages WHERE channel = 'mail'");
    const answer = (key: string, sender: string, body: string) =>
      mustPerform(
        w.hogar,
        receiveMail,
        { key, sender, senderName: "", subject: "Re", body, mailId: null, answers: [reference] },
        system,
      );
    answer("m1", "stranger@example.org", "Yes");
    expect(w.visit().confirmed_at).toBeNull();
    expect(w.waiting()).toEqual([["stranger@example.org", "Yes"]]);
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM threads WHERE customer_id IS NULL");
    const tray = look(w.hogar, thread, { threadId: id }, office);
    expect(tray.ok && tray.value.entries[0]).toMatchObject({ claims: { name: "Mira Okonjo" } });
    answer("m2", w.mail.toUpperCase(), "Yes");
    expect(w.visit().confirmed_at).not.toBeNull();
  });

  it("that reports a mail as undelivered counts only where it names whom the mail went to", async () => {
    const w = world();
    await runDue(w.hogar);
    const { reference } = one<{ reference: string }>(w.hogar, "SELECT reference FROM messages WHERE channel = 'mail'");
    const report = (recipient: string) =>
      mustPerform(w.hogar, noteDelivery, { channel: "mail", reference, state: "bounced", recipient }, system);
    report("somebody.else@example.com");
    expect(one(w.hogar, "SELECT state FROM messages WHERE channel = 'mail'")).toEqual({ state: "sent" });
    report(w.mail);
    expect(one(w.hogar, "SELECT state FROM messages WHERE channel = 'mail'")).toEqual({ state: "bounced" });
  });

  it("of whoever nobody knows waits in a tray of its own, until it is said who that is", () => {
    const w = world();
    w.text("Do you also do gas boilers?", "+1 555 0177");
    expect(w.waiting()).toEqual([["+1 555 0177", "Do you also do gas boilers?"]]);
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM threads WHERE customer_id IS NULL");
    const { threadId } = mustPerform(w.hogar, matchThread, { threadId: id, customerId: 1 }, office);
    expect(w.waiting()).toEqual([["Mira Okonjo", "Do you also do gas boilers?"]]);
    expect(look(w.hogar, thread, { threadId }, office)).toMatchObject({
      value: {
        who: { name: "Mira Okonjo" },
        entries: expect.arrayContaining([
          expect.objectContaining({ kind: "theirs", words: "Do you also do gas boilers?" }),
        ]),
      },
    });
  });

  it("of yes with something more waits for a person, who takes it as a yes; danger stands first on Today at once", async () => {
    const w = world();
    await w.untilBefore(2000);
    w.text("Yes, and my boiler is leaking gas");
    expect(w.visit().confirmed_at).toBeNull();
    const first = () => {
      const seen = look(w.hogar, ownViews.today, {}, office);
      return seen.ok ? seen.value.needs[0] : null;
    };
    expect(first()).toMatchObject({ kind: "danger", words: expect.stringContaining("leaking gas") });
    w.text("Yes, the gate is open");
    const { id, thread_id: threadId } = one<{ id: number; thread_id: number }>(
      w.hogar,
      "SELECT id, thread_id FROM replies ORDER BY id DESC",
    );
    mustPerform(w.hogar, takeAsYes, { threadId, replyId: id }, office);
    expect(w.visit().confirmed_at).not.toBeNull();
    expect(first()?.kind).not.toBe("danger");
  });

  it("of yes to one question about two visits confirms both, and says so", async () => {
    const w = world();
    const { date } = w.visit();
    const later = w.booked({
      as: w.actor,
      window: w
        .offers()
        .filter((o) => o.date === date)
        .at(-2) as never,
    });
    mustPerform(w.hogar, saveMessageRules, { ...rules, rules: [rule({ daysBefore: 1, at: 600, asks: true })] }, office);
    await w.untilBefore(1_200);
    expect(w.of("please confirm").length).toBeGreaterThan(0);
    w.text("C");
    await runDue(w.hogar);
    const confirmed = w.hogar.store
      .sql<{ id: number }>("SELECT id FROM visits WHERE confirmed_at IS NOT NULL ORDER BY id")
      .all()
      .map(({ id }) => id);
    expect(confirmed).toEqual([w.visitId, later.visitId].sort());
    expect(w.sent.at(-1)!.body).toMatch(/is confirmed\. And /);
  });

  it("of yes to nothing that we asked by that channel confirms none", () => {
    const w = world();
    w.text("Ok");
    expect(w.visit().confirmed_at).toBeNull();
    expect(w.waiting()).toHaveLength(1);
  });

  it("by a key of a call confirms; a call that nobody took waits", () => {
    const w = world();
    const call = { sender: w.phone, recording: null, seconds: 4 };
    mustPerform(w.hogar, receiveCall, { ...call, key: "c1", pressed: "1", words: "" }, system);
    expect([w.visit().confirmed_at !== null, w.waiting()]).toEqual([true, []]);
    mustPerform(w.hogar, receiveCall, { ...call, key: "c2", pressed: null, words: "Call me back" }, system);
    expect(w.waiting()).toEqual([["Mira Okonjo", "Call me back"]]);
  });
});

describe("a conversation", () => {
  const question = { name: "Selma Vance", mail: "selma@ovens.example", phone: "", words: "Do you clean bread ovens?" };
  const visitor = { kind: "visitor" } as const;

  it("begins with a question at the front door, and is answered, put off and done", async () => {
    const w = world();
    mustPerform(w.hogar, askQuestion, question, visitor);
    await runDue(w.hogar);
    expect(w.sent.at(-1)).toMatchObject({ to: "selma@ovens.example", subject: expect.stringMatching(/Your question/) });
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM threads");
    mustPerform(w.hogar, snoozeThread, { threadId: id, until: w.hogar.now() + 3_600_000 }, office);
    expect(w.waiting()).toEqual([]);
    w.later(61);
    expect(w.waiting()).toEqual([["Selma Vance", question.words]]);
    const answer = {
      threadId: id,
      channel: "mail" as const,
      subject: "Ovens",
      body: "We do.",
      photos: [],
      key: "answer one",
    };
    for (let i = 0; i < 2; i++) mustPerform(w.hogar, writeByHand, answer, office);
    await runDue(w.hogar);
    expect(w.sent.filter(({ subject }) => subject === "Ovens")).toHaveLength(1);
    expect(w.waiting()).toEqual([]);
    mustPerform(w.hogar, settleThread, { threadId: id, done: false }, office);
    expect(w.waiting()).toHaveLength(1);
  });

  it("keeps what is for inside inside, and refuses a brace", () => {
    const w = world();
    w.text("Hello?");
    const { id } = one<{ id: number }>(w.hogar, "SELECT id FROM threads");
    mustPerform(w.hogar, writeNote, { threadId: id, visitId: null, words: "Talks a lot" }, office);
    expect(w.hogar.store.sql("SELECT 1 FROM messages WHERE body LIKE '%Talks%'").all()).toEqual([]);
    const answer = {
      threadId: id,
      channel: "text",
      subject: "",
      body: "Dear {{customer}}",
      photos: [],
      key: "answer two",
    };
    expect(saidOf(perform(w.hogar, writeByHand, answer, office))).toBe("{{customer}} is not known for this message.");
  });

  it("is not begun by whoever asks too often, and needs a way to answer", () => {
    const w = world();
    for (let i = 0; i < 5; i++) mustPerform(w.hogar, askQuestion, question, visitor);
    expect(perform(w.hogar, askQuestion, question, visitor)).toMatchObject({ problem: { code: "asked-often" } });
    expect(saidOf(perform(w.hogar, askQuestion, { ...question, mail: "" }, visitor))).toMatch(/how we can answer/);
  });
});

describe("words with which an answer begins", () => {
  it("are the owner’s, in the customer’s language, and hold no field but the link", () => {
    const w = world();
    const { threadId } = mustPerform(w.hogar, openThread, { customerId: w.actor.customerId }, office);
    const shown = () => {
      const view = look(w.hogar, thread, { threadId }, office);
      return view.ok ? view.value.starters.map(({ words }) => words) : [];
    };
    expect(shown()).toContain("Thank you, we have noted that.");
    const answers = [
      { name: "Key", words: { en: "Where is the key?", es: "¿Dónde está la llave?" } },
      { name: "Gate", words: { en: "Is the gate open?", es: "" } },
    ];
    mustPerform(w.hogar, saveMessageRules, { ...rules, rules: [], quickAnswers: answers }, office);
    expect(shown()).toEqual(["Where is the key?", "Is the gate open?"]);
    mustPerform(w.hogar, saveLanguage, { customerId: 1, language: "es", timeZone: null }, office);
    expect(shown()).toEqual(["¿Dónde está la llave?"]);
    const wrong = [{ name: "Day", words: { en: "See you on {{day}}", es: "" } }];
    expect(saidOf(perform(w.hogar, saveMessageRules, { ...rules, rules: [], quickAnswers: wrong }, office))).toBe(
      "{{day}} is not known for this message.",
    );
  });
});

describe("texts of the owner’s", () => {
  const words = { occasion: "booked", channel: "text", language: "en", subject: "" } as const;

  it("take the place of those a business starts with, in the customer’s language", async () => {
    const w = world();
    mustPerform(w.hogar, saveTemplate, { ...words, language: "es", body: "{{business}}: hasta el {{day}}" }, office);
    mustPerform(
      w.hogar,
      saveOccasion,
      { occasion: "booked", on: true, channels: ["text"], each: false, outside: "later" },
      office,
    );
    const { sql, db, audit } = w.hogar.store;
    db.transaction(() =>
      audit.under({ at: 1, actor: "test", operation: "test" }, () => sql("UPDATE customers SET language = 'es'").run()),
    )();
    w.booked({ as: system, window: w.offers()[0] as never });
    await runDue(w.hogar);
    expect(w.sent.filter(({ way }) => way === "text").at(-1)!.body).toMatch(/: hasta el \S+ \d+ de marzo/);
  });

  it("are refused with the sentence that says what a customer would read", () => {
    const w = world();
    expect(saidOf(perform(w.hogar, saveTemplate, { ...words, body: "Hello {{surname}}" }, office))).toBe(
      "There is no field {{surname}}.",
    );
    expect(
      saidOf(
        perform(
          w.hogar,
          saveOccasion,
          { occasion: "price review", on: false, channels: ["mail"], each: false, outside: "later" },
          office,
        ),
      ),
    ).toMatch(/cannot be switched off/);
  });

  it("switched off are not written at all", async () => {
    const w = world();
    mustPerform(
      w.hogar,
      saveOccasion,
      { occasion: "booked", on: false, channels: ["mail"], each: false, outside: "later" },
      office,
    );
    const before = w.of("booked").length;
    w.booked({ as: system, window: w.offers()[0] as never });
    expect(w.of("booked")).toHaveLength(before);
  });
});

describe("our own people", () => {
  const list = { channels: ["mail" as const], each: false, outside: "later" as const, on: true };

  it("get tomorrow’s list in the evening and today’s in the morning, once each, and hear of what changed in between", async () => {
    const w = world();
    const { technician } = one<{ technician: number }>(
      w.hogar,
      "SELECT technician_id AS technician FROM placements WHERE visit_id = ?",
      w.visitId,
    );
    const { sql, db, audit } = w.hogar.store;
    db.transaction(() =>
      audit.under({ at: 1, actor: "test", operation: "test" }, () =>
        sql("UPDATE technicians SET mail = 'crew' || id || '@marrowick.example'").run(),
      ),
    )();
    for (const occasion of ["day ahead", "day begins", "daily summary"] as const)
      mustPerform(w.hogar, saveOccasion, { occasion, ...list }, office);
    mustPerform(w.hogar, saveOccasion, { occasion: "day changed", ...list }, office);
    const told = () =>
      w.sent.filter(({ to }) => to === `crew${technician}@marrowick.example`).map(({ subject }) => subject);
    w.at(addDays(w.visit().date, -1), 1100);
    await runDue(w.hogar);
    await runDue(w.hogar);
    expect(told()).toEqual([expect.stringMatching(/^Tomorrow, /)]);
    w.later(30);
    mustPerform(w.hogar, cancelVisit, { visitId: w.visitId, refundDeposit: false }, office);
    await runDue(w.hogar);
    expect(told().slice(1)).toEqual([expect.stringMatching(/has changed$/)]);
    expect(
      w.sent.filter(({ to, subject }) => to === "odile@marrowick.example" && /Marrowick/.test(subject)),
    ).toHaveLength(1);
    w.at(w.visit().date, 400);
    await runDue(w.hogar);
    expect(told()).toHaveLength(2);
  });

  it("named for a technician or a service are told of its bookings, beside the office", async () => {
    const w = world();
    const { sql, db, audit } = w.hogar.store;
    db.transaction(() =>
      audit.under({ at: 1, actor: "test", operation: "test" }, () => {
        sql("UPDATE services SET tells = 'foreman@marrowick.example'").run();
        sql("UPDATE technicians SET tells = 'foreman@marrowick.example'").run();
      }),
    )();
    w.booked({ window: w.offers()[0] as never });
    await runDue(w.hogar);
    expect(w.sent.filter(({ to }) => to === "foreman@marrowick.example").map(({ subject }) => subject)).toEqual([
      expect.stringMatching(/^New booking: Chimney sweep/),
    ]);
  });
});

describe("writing to somebody who is not reached", () => {
  const write = (w: ReturnType<typeof world>, threadId: number, key: string) =>
    perform(
      w.hogar,
      writeByHand,
      { threadId, channel: "text", subject: "", body: "We come at nine.", photos: [], key },
      office,
    );

  it("is seen before, and refused where they have said STOP", () => {
    const w = world();
    w.text("STOP");
    const { threadId } = mustPerform(w.hogar, openThread, { customerId: 1 }, office);
    expect(look(w.hogar, thread, { threadId }, office)).toMatchObject({
      value: {
        channels: expect.not.arrayContaining(["text"]),
        notReached: [{ channel: "text", open: false, words: expect.stringContaining("want nothing") }],
      },
    });
    expect(saidOf(write(w, threadId, "after STOP"))).toContain("want nothing");
  });

  it("opens the conversation again where it does not arrive, and says so from then on", async () => {
    const w = world(({ way }) => (way === "text" ? "no such number" : null));
    w.text("When do you come?");
    const { threadId } = mustPerform(w.hogar, openThread, { customerId: 1 }, office);
    expect(write(w, threadId, "an answer").ok).toBe(true);
    expect(w.waiting()).toEqual([]);
    await drainOutbox(w.hogar);
    expect(w.waiting()).toHaveLength(1);
    expect(look(w.hogar, thread, { threadId }, office)).toMatchObject({
      value: { notReached: [{ channel: "text", open: true }] },
    });
  });
});

it("START after STOP gives back what was agreed before, and no more", () => {
  const w = world();
  w.text("STOP");
  w.text("START");
  const given = w.hogar.store
    .sql<{ kind: string }>("SELECT kind FROM consents WHERE given = 1 AND channel = 'text' ORDER BY id")
    .all();
  expect(given).toEqual([{ kind: "reminders" }]);
});

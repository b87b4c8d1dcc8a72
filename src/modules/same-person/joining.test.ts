import { readdirSync, readFileSync } from "node:fs";
import path from "node:path";
import { actorOfLink, sealedToken } from "@/kernel/links";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { incomingEntry } from "@/modules/incoming/views/incoming";
import { sendQuote } from "@/modules/quotes/operations/send-quote";
import { acceptQuote, bookQuote } from "@/modules/quotes/operations/quotes";
import { quoteDraft } from "@/modules/quotes/views/quote-draft";
import { quote as quoteView, quoteOffers } from "@/modules/quotes/views/quote";
import { bookRequest } from "@/modules/requests/operations/requests";
import { meetWish, takeWish } from "@/modules/requests/operations/wishes";
import { office, one, system, visitor, worldWithPost } from "@demo/small-world";

/** A customer, and somebody who types the customer's name and email and a phone of their own. */
function world() {
  const w = worldWithPost();
  const victim = w.booked({ as: system });
  const { id, name, mail, phone } = one<{ id: number; name: string; mail: string; phone: string }>(
    w.hogar,
    "SELECT id, name, mail, phone FROM customers",
  );
  const typed = { name, mail, phone: "+1 202 555 0199" };
  const jobs = () =>
    w.hogar.store
      .sql<{ customer_id: number; phone: string; proof: string }>(
        "SELECT customer_id, phone, proof FROM jobs ORDER BY id",
      )
      .all()
      .slice(1);
  return { ...w, victim, id, name, mail, phone, typed, jobs };
}
type World = ReturnType<typeof world>;

/** A wish of these details that has been told of a window. */
function wishOf(w: World, details: object): number {
  const id = w.asked({ ...details, wish: { weekdays: 127, from: 0, to: 1440, until: null } });
  mustPerform(w.hogar, meetWish, { id }, system);
  return id;
}

function quoteOf(w: World, details: object): { quoteId: number; token: (way: "mail" | "text") => string } {
  const id = w.asked({ ...details, wishes: "Soon" });
  const draft = look(w.hogar, quoteDraft, { kind: "request", id }, office);
  if (!draft.ok) throw new Error(draft.problem.sentence);
  const { quoteId } = mustPerform(
    w.hogar,
    sendQuote,
    { about: { kind: "request", id }, ...draft.value.draft, depositMinor: 0 },
    office,
  );
  return { quoteId, token: (way) => sealedToken(w.hogar, { kind: "quote", id: quoteId }, way) };
}

function accept(w: World, token: string): void {
  const seen = look(w.hogar, quoteView, { token }, visitor);
  const offers = look(w.hogar, quoteOffers, { token }, visitor);
  if (!seen.ok || !offers.ok) throw new Error("The quote opens nothing");
  const { date, from, to } = offers.value[0]!;
  mustPerform(
    w.hogar,
    acceptQuote,
    { token, totalMinor: seen.value.totalMinor, window: { date, from, to }, words: "" },
    visitor,
  );
}

describe("whoever types somebody else’s name and email, and a phone of their own", () => {
  const isSomebodyElse = (w: World) => {
    const [job] = w.jobs();
    expect(job!.phone).toBe(w.typed.phone);
    expect(job!.customer_id).not.toBe(w.id);
    // A person sees the two side by side.
    expect(one(w.hogar, "SELECT one_id FROM possible_duplicates WHERE state = 'open'")).toEqual({ one_id: w.id });
  };

  it("is not that customer by a wish, taken by the text that went to their own phone", () => {
    const w = world();
    const id = wishOf(w, w.typed);
    mustPerform(w.hogar, takeWish, { token: sealedToken(w.hogar, { kind: "wish", id }, "text") }, visitor);
    isSomebodyElse(w);
    expect(w.jobs()[0]!.proof).toBe("none");
  });

  it("nor by a quote that they accept from the text", () => {
    const w = world();
    accept(w, quoteOf(w, w.typed).token("text"));
    isSomebodyElse(w);
  });

  it("nor where the office books the request, or the quote, that they typed", () => {
    const w = world();
    const requestId = w.asked({ ...w.typed, wishes: "Soon" });
    const entry = look(w.hogar, incomingEntry, { kind: "request", id: requestId }, office);
    expect(entry.ok).toBe(true);
    const { date, from, to } = w.offers()[0]!;
    mustPerform(w.hogar, bookRequest, { requestId, date, from, to }, office);
    const { quoteId } = quoteOf(w, w.typed);
    const next = w.offers()[1]!;
    mustPerform(w.hogar, bookQuote, { quoteId, date: next.date, from: next.from, to: next.to }, office);
    expect(w.jobs().map(({ customer_id }) => customer_id === w.id)).toEqual([false, false]);
  });

  it("nor by booking, even with a link of a booking of their own", () => {
    const w = world();
    const own = w.booked({
      nth: 11,
      as: system,
      more: { customer: { ...w.typed, name: "Anton Weiss", mail: "anton@example.com", reminders: false } },
    });
    w.booked({ nth: 12, as: own.actor, more: { customer: { ...w.typed, reminders: false } } });
    expect(w.jobs().map(({ customer_id }) => customer_id === w.id)).toEqual([false, false]);
  });
});

describe("whoever shows that an address is theirs", () => {
  it("is its customer by the link that went there, and is reached as we know them, not as a stranger typed", () => {
    const w = world();
    const id = wishOf(w, w.typed);
    mustPerform(w.hogar, takeWish, { token: sealedToken(w.hogar, { kind: "wish", id }, "mail") }, visitor);
    expect(w.jobs()).toEqual([{ customer_id: w.id, phone: "", proof: "known" }]);
    const { quoteId } = quoteOf(w, { name: w.name, mail: "elsewhere@example.com", phone: w.phone });
    accept(w, sealedToken(w.hogar, { kind: "quote", id: quoteId }, "text"));
    expect(w.jobs()[1]).toMatchObject({ customer_id: w.id, phone: "" });
  });

  it("is that customer by the link of their own booking", () => {
    const w = world();
    const link = actorOfLink(w.hogar, w.victim.link)!;
    w.booked({ nth: 12, as: link, more: { customer: { ...w.typed, reminders: false } } });
    expect(w.jobs()).toEqual([{ customer_id: w.id, phone: w.typed.phone, proof: "known" }]);
  });
});

it("who is joined is decided in one place, which these ask, each saying what was shown", () => {
  const files = readdirSync("src", { recursive: true, encoding: "utf8" }).filter((name) =>
    /(?<!\.test)\.tsx?$/.test(name),
  );
  const callers = files.flatMap((name) => {
    const asks =
      readFileSync(path.join("src", name), "utf8").match(/(?<!function )\bcustomerFor\([^;]*?\)(?=[;.])/g) ?? [];
    return asks.map(
      (ask) => `${path.basename(name)}: ${/, ((?:[^,()]|\([^()]*\))*?),? ?\)$/.exec(ask.replace(/\s+/g, " "))![1]}`,
    );
  });
  expect(callers.sort()).toEqual([
    'book-in-office.ts: "the office"',
    "book.ts: shownBy(context, input, isProved)",
    "quotes.ts: shown",
    'requests.ts: by ?? "nothing"',
  ]);
});

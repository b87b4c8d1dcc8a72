import type { Hogar } from "@/kernel/hogar";
import { mustPerform } from "@/kernel/operation";
import { receiveCall, receiveMail, receiveText } from "@/modules/messages/operations/receive";
import { openThread, settleThread, writeByHand, writeNote } from "@/modules/messages/operations/conversation";
import { saveSender } from "@/modules/messages/operations/save-occasion";
import { saveMessageRules } from "@/modules/messages/operations/save-rules";
import { keepRecording } from "@/modules/messages/files";
import { toneOf } from "@/gateways/tone";
import * as marrowick from "./marrowick";
import { office } from "./set-up";

const gateway = { kind: "system", name: "text gateway" } as const;

/** When customers are reminded, and as whom the business writes. */
export function writeToCustomers(hogar: Hogar): void {
  mustPerform(
    hogar,
    saveMessageRules,
    {
      from: 8 * 60,
      to: 20 * 60,
      mostADay: 4,
      language: "en",
      partMilli: 75,
      countsOpened: false,
      rules: [
        { id: 1, daysBefore: null, at: null, minutesBefore: 24 * 60, outside: "earlier", asks: false },
        { id: null, daysBefore: 3, at: 17 * 60, minutesBefore: null, outside: "earlier", asks: true },
      ],
    },
    office,
  );
  for (const channel of ["text", "voice"] as const)
    mustPerform(hogar, saveSender, { channel, name: "Marrowick", address: marrowick.business.phone }, office);
}

/** What customers answered this morning: some confirm, one wants to move, one asks, one called; and somebody nobody knows. */
export function answerThisMorning(hogar: Hogar): void {
  const asked = hogar.store
    .sql<{ phone: string; mail: string; name: string }>(
      `SELECT c.phone, c.mail, c.name FROM visits v JOIN jobs j ON j.id = v.job_id JOIN customers c ON c.id = j.customer_id
        WHERE v.state = 'promised' AND v.confirmed_at IS NULL AND c.phone <> '' AND c.mail NOT LIKE 'bounce%' AND c.merged_into IS NULL
          AND (SELECT count(*) FROM customers o WHERE o.phone = c.phone) = 1
        GROUP BY c.id ORDER BY min(v.window_from) LIMIT 40`,
    )
    .all();
  const text = (nth: number, body: string) => {
    const from = asked[nth];
    if (from) mustPerform(hogar, receiveText, { key: `text this morning ${nth}`, sender: from.phone, body }, gateway);
  };
  for (let nth = 6; nth < 26; nth += 2) text(nth, nth % 4 ? "C" : "Yes, see you then");
  text(1, "C. But could you come an hour later? The little one has school.");
  text(3, "Do you also clean the glass of the stove door?");
  text(5, "STOP");
  mustPerform(
    hogar,
    receiveText,
    { key: "text of a stranger", sender: "+1 555 0177", body: "Do you also do gas boilers?" },
    gateway,
  );
  const [caller, writer] = [asked[7], asked[9]];
  if (caller)
    mustPerform(
      hogar,
      receiveCall,
      {
        key: "call this morning",
        sender: caller.phone,
        pressed: null,
        recording: keepRecording(hogar, toneOf(4), "audio/wav", gateway),
        seconds: 4,
        words: "Could somebody call me back about the invoice?",
      },
      gateway,
    );
  if (writer?.mail)
    mustPerform(
      hogar,
      receiveMail,
      {
        key: "mail this morning",
        sender: writer.mail,
        senderName: writer.name,
        subject: "The key",
        body: "The key is with the neighbour at number 4 this time. He is in until noon.",
        mailId: "<this-morning@mail.example>",
        answers: [],
      },
      gateway,
    );
  answerOne(hogar);
}

/** One of them has been answered already, with a word for inside. */
function answerOne(hogar: Hogar): void {
  const last = hogar.store
    .sql<{ id: number; customer_id: number }>(
      "SELECT id, customer_id FROM threads WHERE customer_id IS NOT NULL AND waiting_since IS NOT NULL ORDER BY id DESC LIMIT 1",
    )
    .get();
  if (!last) return;
  const { threadId } = mustPerform(hogar, openThread, { customerId: last.customer_id }, office);
  const body = "Thank you for telling us. Bram knows, and rings at number 4 first.";
  mustPerform(
    hogar,
    writeByHand,
    { threadId, channel: "mail", subject: "The key", body, photos: [], key: "the key is there" },
    office,
  );
  mustPerform(hogar, writeNote, { threadId, visitId: null, words: "The neighbour is called Jonas." }, office);
  mustPerform(hogar, settleThread, { threadId, done: true }, office);
}

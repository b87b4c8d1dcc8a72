import fc from "fast-check";
import { datesFrom } from "@/core/time/dates";
import type { MessageGateway } from "@/gateways/types";
import { mustPerform, perform } from "@/kernel/operation";
import { moveVisit } from "@/modules/placing/operations/move-visit";
import { cancelVisit } from "@/modules/visits/operations/cancel-visit";
import { runDue } from "@/worker/loop";
import { office, one, smallWorld, system } from "@demo/small-world";
import { noteDelivery } from "./operations/record-delivery";
import { receiveText } from "./operations/receive";
import { saveMessageRules } from "./operations/save-rules";

/** What may happen, in any order and as often as it likes. */
const steps = fc.array(
  fc.oneof(
    fc.record({ does: fc.constant("later" as const), hours: fc.integer({ min: 1, max: 40 }) }),
    // The service takes the message, and the worker dies before it can note so.
    fc.record({ does: fc.constant("dies" as const) }),
    fc.record({ does: fc.constant("move" as const), day: fc.nat(6), nth: fc.nat(3) }),
    fc.record({ does: fc.constant("confirms" as const) }),
    // Notices come twice, late, and in the wrong order.
    fc.record({
      does: fc.constant("notice" as const),
      nth: fc.nat(8),
      state: fc.constantFrom("delivered" as const, "failed" as const),
    }),
    fc.record({ does: fc.constant("cancel" as const) }),
  ),
  { minLength: 4, maxLength: 14 },
);

const days = datesFrom("2027-03-15", "2027-03-19");

it("one message of each occasion reaches its reader, whatever crashes, comes twice or in another order", async () => {
  await fc.assert(
    fc.asyncProperty(steps, async (happens) => {
      const taken = new Map<string, number>();
      let dies = false;
      const gateway: MessageGateway = {
        repeatable: true,
        async send({ key }) {
          // The service knows a key again: it is delivered once.
          taken.set(key, (taken.get(key) ?? 0) + 1);
          if (!dies) return { state: "sent", reference: key };
          dies = false;
          throw new Error("The connection broke");
        },
      };
      const w = smallWorld({ mail: gateway, text: gateway, voice: null });
      const { hogar } = w;
      const { visitId } = w.booked({ window: w.offers().at(-1) as never });
      mustPerform(
        hogar,
        saveMessageRules,
        {
          ...{ from: 480, to: 1200, mostADay: 10, language: "en", partMilli: 0, countsOpened: false },
          rules: [
            { id: null, daysBefore: 1, at: 1020, minutesBefore: null, outside: "later", asks: true },
            { id: null, daysBefore: null, at: null, minutesBefore: 180, outside: "earlier", asks: false },
          ],
        },
        office,
      );
      let nth = 0;
      for (const step of happens) {
        if (step.does === "later") w.later(step.hours * 60);
        if (step.does === "dies") dies = true;
        if (step.does === "move") {
          const fromMinute = 540 + step.nth * 120;
          const to = {
            date: days[step.day % days.length]!,
            fromMinute,
            toMinute: fromMinute + 120,
            technicianIds: [1],
          };
          perform(hogar, moveVisit, { visitId, ...to }, office);
        }
        if (step.does === "cancel") perform(hogar, cancelVisit, { visitId, refundDeposit: false }, office);
        if (step.does === "confirms")
          perform(hogar, receiveText, { key: `t${nth++}`, sender: "+1 555 0142", body: "C" }, system);
        if (step.does === "notice") {
          const reference = [...taken.keys()][step.nth];
          for (const channel of reference ? (["text", "mail"] as const) : [])
            for (let twice = 0; twice < 2; twice++)
              perform(hogar, noteDelivery, { channel, reference: reference!, state: step.state }, system);
        }
        await runDue(hogar);
      }
      w.later(60);
      await runDue(hogar);
      const rows = hogar.store
        .sql<{ occasion: string; kind: string; state: string; channel: string; window_from: number | null }>(
          "SELECT occasion, kind, state, channel, window_from FROM messages",
        )
        .all();
      // On one channel an occasion is one row; and on the next one only where the one before has failed.
      const arrived = new Map<string, string[]>();
      for (const { occasion, kind, state, channel } of rows.filter((row) =>
        ["sent", "delivered"].includes(row.state),
      )) {
        const of = occasion.replace(new RegExp(` ${channel}$`), "");
        // What goes by each of its channels goes once by each.
        const key = kind === "moved" ? `${of} ${channel}` : of;
        arrived.set(key, [...(arrived.get(key) ?? []), `${channel} ${state}`]);
      }
      expect([...arrived].filter(([, ways]) => ways.length > 1)).toEqual([]);
      expect(new Set(rows.map(({ occasion }) => occasion)).size).toBe(rows.length);
      // A reminder of a promise that has ended did not go out after it had.
      const { state, window_from } = one<{ state: string; window_from: number }>(
        hogar,
        "SELECT state, window_from FROM visits WHERE id = ?",
        visitId,
      );
      const waits = rows.filter((row) => row.kind === "visit reminder" && row.state === "waiting");
      if (state === "promised") for (const row of waits) expect(row.window_from).toBe(window_from);
    }),
    { numRuns: 12 },
  );
});

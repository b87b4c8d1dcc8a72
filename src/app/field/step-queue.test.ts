import { type ProblemCode, Refusal, type Result } from "@/core/problems";
import { type KeptStep, makeStepQueue, type StepQueue } from "./step-queue";

const refused = (code: ProblemCode): Result<unknown> => ({ ok: false, problem: new Refusal(code).problem });
const accepted: Result<unknown> = { ok: true, value: null };
const going: KeptStep = { visitId: 7, to: "on the way" };
const there: KeptStep = { visitId: 7, to: "on site" };

/** A phone's storage, and a server that answers as it is told, one answer after the other, then always yes. */
function phone(answers: Result<unknown>[] = [], kept: string | null = null) {
  const box = { kept };
  const sent: KeptStep[] = [];
  let inFlight = 0;
  let mostInFlight = 0;
  const waiting: (() => void)[] = [];
  const storage = { getItem: () => box.kept, setItem: (_: string, text: string) => void (box.kept = text) };
  const send = async (step: KeptStep) => {
    mostInFlight = Math.max(mostInFlight, ++inFlight);
    sent.push(step);
    await Promise.resolve();
    inFlight--;
    return answers.shift() ?? accepted;
  };
  const open = () => makeStepQueue({ send, storage, pauseMs: 1, onChange: () => waiting.forEach((look) => look()) });
  /** Resolves when this holds of the steps. */
  const until = (queue: StepQueue, holds: () => boolean) =>
    new Promise<void>((resolve) => {
      const look = () => holds() && resolve();
      waiting.push(look);
      look();
    });
  return { open, sent, box, until, mostInFlight: () => mostInFlight };
}
const allSent = (queue: StepQueue) => () => queue.steps().every((s) => s.state === "sent");

describe("steps taken in the field", () => {
  it.each(["busy", "not-signed-in", "too-many-tries", "unexpected", "offline"] as const)(
    "are kept and sent again where the answer is “%s”, and in order",
    async (code) => {
      const { open, sent, until } = phone([refused(code), refused(code)]);
      const queue = open();
      queue.take(going);
      queue.take(there);
      await until(queue, allSent(queue));
      expect(sent).toEqual([going, going, going, there]);
    },
  );

  it("say why they are kept", async () => {
    const { open, until } = phone(Array.from({ length: 50 }, () => refused("busy")));
    const queue = open();
    queue.take(going);
    await until(queue, () => queue.steps()[0]?.problem != null);
    expect(queue.steps()[0]).toMatchObject({ state: "kept", problem: { code: "busy" } });
    await until(queue, allSent(queue));
  });

  it("are sent one at a time, each once", async () => {
    const { open, sent, until, mostInFlight } = phone();
    const queue = open();
    for (const step of [going, there, { visitId: 7, to: "done" as const }]) queue.take(step);
    await until(queue, allSent(queue));
    expect([sent.length, mostInFlight()]).toEqual([3, 1]);
  });

  it("that are truly refused are told until they are read, and keep nothing back", async () => {
    const { open, sent, until } = phone([refused("wrong-order")]);
    const queue = open();
    queue.take(going);
    queue.take({ visitId: 8, to: "on the way" });
    await until(queue, () => queue.steps().some((s) => s.state === "sent"));
    expect([queue.steps().map((s) => s.state), queue.steps()[0]!.problem?.code, sent.length]).toEqual([
      ["refused", "sent"],
      "wrong-order",
      2,
    ]);
    queue.dismiss(queue.steps()[0]!.id);
    expect(queue.steps().map((s) => s.state)).toEqual(["sent"]);
  });

  it("that were not sent when the page was closed are sent by the next one", async () => {
    const closed = phone(Array.from({ length: 100 }, () => refused("offline")));
    const before = closed.open();
    before.take(going);
    before.take(there);
    await closed.until(before, () => before.steps()[0]?.problem != null);
    const { open, sent, until } = phone([], closed.box.kept);
    const queue = open();
    await until(queue, () => sent.length === 2 && allSent(queue)());
    expect(sent).toEqual([going, there]);
    before.close();
  });

  it("that cannot be read are left out, and the others are sent", async () => {
    const closed = phone(Array.from({ length: 100 }, () => refused("offline")));
    const before = closed.open();
    before.take(going);
    await closed.until(before, () => before.steps()[0]?.problem != null);
    const kept = JSON.stringify([{ nonsense: true }, null, ...(JSON.parse(closed.box.kept!) as object[])]);
    before.close();
    const { open, sent, until } = phone([], kept);
    const queue = open();
    await until(queue, () => sent.length === 1 && allSent(queue)());
    expect([sent, phone([], "{not json").open().steps()]).toEqual([[going], []]);
  });
});

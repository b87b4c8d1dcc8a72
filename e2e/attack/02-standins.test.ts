import { as, post } from "../support/http";
import { type Running, startEmpty } from "../support/server";

/** 2: in a real installation there are no stand-ins, no test cards, and what is not connected is said. */
let app: Running;
beforeAll(async () => void (app = await startEmpty()));
afterAll(() => app.stop());

it.each(["text/answer", "cards/tokens", "cards/step/ch_1/settle"])("nobody posts to %s", async (at) => {
  const answer = await post(`${app.url}/standins/${at}`, {
    sender: "+1 555 0142",
    body: "stop",
    number: "9900000000001006",
  });
  expect([answer.status, answer.value]).toEqual([404, undefined]);
});

it.each(["mail", "text", "cards/frame", "directory"])("there is no page %s", async (at) => {
  expect((await fetch(`${app.url}/standins/${at}`)).status).toBe(404);
});

it("no card is asked for, and set-up says what is not connected", async () => {
  expect((await post<{ takesCards: boolean }>(`${app.url}/api/views/front-door`, {})).value.takesCards).toBe(false);
  const setup = await post<{ outside: object }>(`${app.url}/api/views/setup`, {}, await as(app.url, "odile"));
  expect(setup.value.outside).toEqual({ mail: false, text: false, cards: false });
});

import { post } from "../support/http";
import { type Running, startDemo } from "../support/server";

/** A demo whose strangers are held as an owner gets it, for the attacks of a file, in a process of its `own` where that counts. Attacks are few, short and on this machine. */
export function underAttack(own?: { env?: Partial<NodeJS.ProcessEnv> }): Running {
  const app = {} as Running;
  beforeAll(async () => void Object.assign(app, await startDemo({ strangersAreLimited: true, own })));
  afterAll(() => app.stop?.());
  return app;
}

export interface Window {
  date: string;
  from: number;
  to: number;
}

/** What somebody at the front door can do, without a browser. */
export function visitorAt(app: Running) {
  const ask = <T>(view: string, input: unknown, headers?: Record<string, string>) =>
    post<T>(`${app.url}/api/views/${view}`, input, headers);
  const change = <T>(operation: string, input: unknown, headers?: Record<string, string>) =>
    post<T>(`${app.url}/api/operations/${operation}`, input, headers);
  const serviceOf = (code: string) => app.sql<{ id: number }>("SELECT id FROM services WHERE code = ?", code)[0]!.id;
  /** A service as it is ordered, with what it must be told. */
  const itemOf = (code: string) => ({
    serviceId: serviceOf(code),
    ...(code === "SW" && { answers: { flues: 1, nest: false } }),
  });
  const addressOf = async (text: string) => (await ask<{ id: string }[]>("find-address", { text })).value[0]!.id;
  const windowsFor = async (addressId: string, code: string) =>
    (await ask<{ windows: Window[] }>("offers", { addressId, items: [itemOf(code)] })).value.windows;
  const who = (name: string, more: object = {}) => ({
    name,
    mail: `${name.split(" ")[0]!.toLowerCase()}@example.com`,
    phone: "+1 201 555 0111",
    reminders: false,
    ...more,
  });
  /** Books the nth window that is offered. */
  const book = async (name: string, { code = "SW", nth = 0, more = {}, customer = {}, headers = {} } = {}) => {
    const addressId = await addressOf("12 alder");
    const { date, from, to } = (await windowsFor(addressId, code))[nth]!;
    return change<{ link: string }>(
      "book",
      {
        addressId,
        items: [itemOf(code)],
        date,
        from,
        to,
        note: "",
        customer: who(name, customer),
        ...more,
      },
      headers,
    );
  };
  const jobOf = (link: string) =>
    app.sql<{ id: number }>("SELECT job_id AS id FROM links WHERE id = ?", Number(link.split(".")[0]))[0]!.id;
  return { ask, change, serviceOf, itemOf, addressOf, windowsFor, who, book, jobOf };
}

/** Asks the server again and again until the worker has done what is asked of it. */
export async function untilSoon<T>(app: Running, read: () => T | null | undefined | false): Promise<T> {
  for (let i = 0; i < 2000; i++) {
    const found = read();
    if (found) return found;
    await post(`${app.url}/api/views/front-door`, {});
  }
  throw new Error("It did not come true");
}

import next from "next";
import { createServer } from "node:http";
import { onStop } from "./stopping";

/** Serves the built application on a port. Told to stop, it takes no new requests, finishes those under way, and closes the database. */
export async function serveApplication(port: number): Promise<void> {
  const application = next({ dev: false, dir: process.cwd(), port });
  await application.prepare();
  const handle = application.getRequestHandler();
  const server = createServer((request, response) => void handle(request, response));
  await new Promise<void>((resolve, reject) => server.once("error", reject).listen(port, resolve));
  await loadWhatCustomersAsk(port);
  console.log(`Ready on http://localhost:${port}`);

  onStop(async () => {
    const closed = new Promise((resolve) => server.close(resolve));
    server.closeIdleConnections();
    await closed;
    const shared = globalThis as { hogar?: { store: { db: { close: () => void } } }; stopWorker?: () => Promise<void> };
    await shared.stopWorker?.();
    shared.hogar?.store.db.close();
  });
}

/** The code behind the views is read when it is first asked for: by us, so that the first customer does not wait. */
async function loadWhatCustomersAsk(port: number): Promise<void> {
  await fetch(`http://localhost:${port}/api/views/front-door`, {
    method: "POST",
    headers: { "content-type": "application/json" },
    body: "{}",
  }).catch(() => {});
}

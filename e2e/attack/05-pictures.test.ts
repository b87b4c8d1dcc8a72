import { readFileSync } from "node:fs";
import sharp from "sharp";
import { underAttack } from "./attacker";

/** 5: small pictures that are huge when they are unpacked, and bodies without an end, stop nobody. */
const app = underAttack({});
const send = (body: BodyInit) =>
  fetch(`${app.url}/api/images?purpose=answer`, {
    method: "POST",
    headers: { "content-type": "image/png" },
    body,
    duplex: "half",
  } as RequestInit);
/** The most memory the server has had, in MB. */
const mostMemory = () => Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${app.pid}/status`, "utf8"))![1]) / 1024;

it("pictures of too many pixels are refused without being unpacked", async () => {
  const bomb = await sharp({ create: { width: 9000, height: 9000, channels: 3, background: "#888" } })
    .png({ compressionLevel: 9 })
    .toBuffer();
  expect(bomb.length).toBeLessThan(1_000_000);
  const before = mostMemory();
  const answers = await Promise.all(Array.from({ length: 8 }, () => send(new Uint8Array(bomb))));
  for (const answer of answers) expect(await answer.json()).toMatchObject({ problem: { code: "not-a-picture" } });
  expect(mostMemory() - before).toBeLessThan(300);
});

it("a body is cut off while it is read", async () => {
  const before = mostMemory();
  let sent = 0;
  const endless = new ReadableStream({
    pull(controller) {
      sent += 1_000_000;
      if (sent > 300_000_000) controller.close();
      else controller.enqueue(new Uint8Array(1_000_000));
    },
  });
  // It is told so, or the connection is closed under it.
  const answer = await send(endless).then(
    (response) => response.status,
    () => "closed",
  );
  expect(answer).not.toBe(200);
  expect(mostMemory() - before).toBeLessThan(200);
});

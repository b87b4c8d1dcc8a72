import { readMail } from "./mail-reader";

/** A process of its own that reads emails, one after the other, for the process that has started it (mail-process.ts). */
process.on("message", async ({ raw }: { raw: Uint8Array }) => {
  try {
    process.send!({ mail: await readMail(raw) });
  } catch (error) {
    process.send!({ problem: String(error) });
  }
});
process.on("disconnect", () => process.exit(0));

/** Started with the server: the worker loop, unless `hogar worker` runs it elsewhere. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs" || process.env.HOGAR_WORKER === "off") return;
  const [{ getHogar }, { startWorker }] = await Promise.all([import("./app/server/hogar"), import("./worker/loop")]);
  startWorker(getHogar());
}

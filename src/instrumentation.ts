/** Started with the server: technicians' days are read once, and the worker loop runs, unless `hogar worker` runs it elsewhere. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const [{ getHogar }, { startWorker }, { readAhead }] = await Promise.all([
    import("./app/server/hogar"),
    import("./worker/loop"),
    import("./operations/planning"),
  ]);
  readAhead(getHogar());
  if (process.env.HOGAR_WORKER !== "off") startWorker(getHogar());
}

/** Started with the server: technicians' days are read once, and the worker runs beside it, unless `hogar worker` runs it elsewhere. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const [{ getHogar, dataFolder, shared }, { startWorkerThread }, { readAhead }] = await Promise.all([
    import("./server/hogar"),
    import("./worker/start-thread"),
    import("./modules/placing/planning"),
  ]);
  let stopWorker: (() => Promise<void>) | null = null;
  shared.begin = () => {
    const hogar = getHogar();
    if (process.env.HOGAR_WORKER !== "off") stopWorker = startWorkerThread(hogar, dataFolder());
    readAhead(hogar);
  };
  shared.end = async () => {
    await stopWorker?.();
    shared.hogar?.close();
    shared.hogar = undefined;
  };
  shared.begin();
}

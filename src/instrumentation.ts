/** Started with the server: technicians' days are read once, and the worker runs beside it, unless `hogar worker` runs it elsewhere. */
export async function register(): Promise<void> {
  if (process.env.NEXT_RUNTIME !== "nodejs") return;
  const [
    { getHogar },
    { dataFolder, shared },
    { startWorkerThread },
    { readAhead },
    { answerView, answerOperation },
    { personOfCookies },
  ] = await Promise.all([
    import("./server/hogar"),
    import("./server/shared"),
    import("./worker/start-thread"),
    import("./modules/placing/planning"),
    import("./server/direct"),
    import("./server/session"),
  ]);
  let stopWorker: (() => Promise<void>) | null = null;
  shared.begin = () => {
    const hogar = getHogar();
    if (process.env.HOGAR_WORKER !== "off") stopWorker = startWorkerThread(hogar, dataFolder());
    shared.ready = readAhead(hogar).catch((error: unknown) => console.error("reading ahead", error));
  };
  shared.end = async () => {
    await stopWorker?.();
    shared.hogar?.close();
    shared.hogar = undefined;
  };
  shared.direct = {
    answer: { views: answerView, operations: answerOperation },
    isSignedIn: async (cookie) => (await personOfCookies(cookie)) !== null,
  };
  shared.begin();
}

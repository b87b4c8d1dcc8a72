/** Longest time that what is under way may take when the process is told to stop, in milliseconds. */
const longestMs = 4_500;

/** Stops in an orderly way when the process is told to; whatever hangs does not keep it. */
export function onStop(stop: () => Promise<void>): void {
  let stopping = false;
  for (const signal of ["SIGINT", "SIGTERM"] as const)
    process.on(signal, () => {
      if (stopping) return;
      stopping = true;
      setTimeout(() => process.exit(1), longestMs).unref();
      void stop().then(
        () => process.exit(0),
        (error: unknown) => {
          console.error(error);
          process.exit(1);
        },
      );
    });
}

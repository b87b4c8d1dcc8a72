/** The command line: `npm run -s hogar -- <command>`. A problem is one line on standard error, with exit code 2. */
export {};

type Command = (args: string[]) => void | Promise<void>;

// Each command loads only what it needs: the engines start without the database.
const business = () => import("./business");
const commands: Record<string, { about: string; load: () => Promise<Command> }> = {
  init: {
    about:
      "make the business and its owner: --name --mail --password --owner [--phone --currency --time-zone --lng --lat]",
    load: async () => (await business()).init,
  },
  serve: {
    about: "start office, front door and worker: [--port N] [--no-worker]",
    load: async () => (await import("./serve")).serve,
  },
  worker: { about: "run the worker alone", load: async () => (await business()).worker },
  "new-secret": {
    about: "a new secret for sessions and links: [--forget-old]",
    load: async () => (await business()).newSecret,
  },
  backup: { about: "copy the database while it is in use: FILE", load: async () => (await business()).backup },
  check: {
    about: "every law of the data; exit code 1 with the first that is broken: [FILE]",
    load: async () => (await import("./check")).check,
  },
  windows: {
    about: "which windows can be promised, JSON in and out: [FILE]",
    load: async () => (await import("./windows")).windows,
  },
  quote: {
    about: "what an order costs and how long it takes, JSON in and out: [FILE]",
    load: async () => (await import("./quote")).quote,
  },
  repeat: {
    about: "the dates of a recurrence rule and what becomes of them, JSON in and out: [FILE]",
    load: async () => (await import("./repeat")).repeat,
  },
  collect: {
    about: "which run would take which invoice, JSON in and out: [FILE]",
    load: async () => (await import("./collect")).collect,
  },
  remind: {
    about: "when each message about a visit falls, JSON in and out: [FILE]",
    load: async () => (await import("./remind")).remind,
  },
  plan: {
    about: "who does what in which order, JSON in and out: [FILE] [--seed N] [--budget-ms N]",
    load: async () => (await import("./plan")).plan,
  },
};

const [name, ...rest] = process.argv.slice(2);
const command = name ? commands[name] : undefined;
if (!command) {
  console.error(
    [
      "Usage: npm run -s hogar -- COMMAND",
      ...Object.entries(commands).map(([n, c]) => `  ${n.padEnd(8)} ${c.about}`),
    ].join("\n"),
  );
  process.exit(2);
}
try {
  await (
    await command.load()
  )(rest);
} catch (error) {
  console.error(`hogar ${name}: ${error instanceof Error ? error.message : String(error)}`);
  process.exit(2);
}

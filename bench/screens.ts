import { personActor } from "@/core/people/permissions";
import { addDays } from "@/core/time/dates";
import { mustPerform, viewContext } from "@/kernel/operation";
import { customersToRemind } from "@/modules/messages/reminders";
import { growRepeat } from "@/modules/repeats/operations/repeats";
import { repeatsToGrow } from "@/modules/repeats/repeats";
import { lookAt, type ViewInput, type ViewName } from "@/registry/views";
import { firstPage } from "@/ui/first-page";
import { jobs } from "@/worker/jobs";
import { mkdtempSync, rmSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import { makeLargeOffice } from "./large-office";
import { ms } from "./measure";

const owner = personActor({ id: 1, name: "Odile Brandt", role: "owner", technicianId: null });
const technician = personActor({ id: 2, name: "Technician 0", role: "technician", technicianId: 1 });
/** A screen's view is read within this share of a second. */
const mostMs = 100;

/** Each main screen's view in the server at a large office, and what the worker's looks cost there. */
export async function run(): Promise<void> {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-bench-"));
  try {
    const hogar = makeLargeOffice(folder);
    const { today } = viewContext(hogar, owner);
    const views: [ViewName, ViewInput<ViewName>][] = [
      ["today", {}],
      ["day-strip", {}],
      ["board", { date: addDays(today, 3) }],
      ["incoming", firstPage<"incoming">("at")],
      ["customers", firstPage<"customers">("name")],
      ["customers", { ...firstPage<"customers">("openMinor", true), search: "77" }],
      ["customer", { id: 500, visits: 20, messages: 10 }],
      ["find", { text: "harbour" }],
      ["repeats", firstPage<"repeats">("next")],
      ["repeats", { ...firstPage<"repeats">("value", true), show: "needs a person" }],
      ["repeats-outlook", {}],
      ["money", {}],
      ["money-overview", {}],
      ["to-bill", { page: 0, size: 20, sort: "since", descending: false, search: "", until: today }],
      ["invoices", { ...firstPage<"invoices">("number", true), show: "all" }],
      ["invoices", { ...firstPage<"invoices">("dueDate"), show: "overdue" }],
      ["payments", { ...firstPage<"payments">("at", true), show: "not used up" }],
      ["bank-lines", { ...firstPage<"bank-lines">("date"), show: "open" }],
      ["payouts", firstPage<"payouts">("at", true)],
      ["collection", {}],
      ["visit-sheet", { visitId: 10 }],
      ["setup", {}],
      ["field-day", {}],
    ];
    for (const [name, input] of views) {
      const actor = name === "field-day" ? technician : owner;
      const once = () => {
        const result = lookAt(hogar, name, input, actor);
        if (!result.ok) throw new Error(`${name}: ${result.problem.sentence}`);
      };
      const mean = await ms(name, once);
      console.log(`  ${name.padEnd(14)} ${mean.toFixed(1).padStart(7)} ms${mean > mostMs ? "   too slow" : ""}`);
    }
    await measureWorker(hogar);
  } finally {
    rmSync(folder, { recursive: true, force: true });
  }
}

async function measureWorker(hogar: ReturnType<typeof makeLargeOffice>): Promise<void> {
  const context = viewContext(hogar, owner);
  const job = (name: string) => jobs.find((j) => j.name === name)!;
  const timed = async (name: string) => {
    const began = performance.now();
    await job(name).run(hogar, Infinity, 0);
    return performance.now() - began;
  };
  console.log(`  reminders that fell due, written: ${(await timed("reminders")).toFixed(0)} ms`);
  console.log(`  a look for reminders: ${(await ms("look", () => void customersToRemind(context))).toFixed(2)} ms`);
  const { longest, all } = growAll(hogar);
  console.log(`  3,000 repeats grown: ${(all / 1000).toFixed(1)} s, the longest transaction ${longest.toFixed(0)} ms`);
  console.log(
    `  a look for repeats: ${(await ms("look", () => void repeatsToGrow(hogar, context.today))).toFixed(2)} ms`,
  );
}

/** Every repeat once, and the longest of its transactions. */
function growAll(hogar: ReturnType<typeof makeLargeOffice>): { longest: number; all: number } {
  const began = performance.now();
  let longest = 0;
  for (const repeatId of repeatsToGrow(hogar, viewContext(hogar, owner).today)) {
    for (let more = true; more;) {
      const before = performance.now();
      ({ more } = mustPerform(hogar, growRepeat, { repeatId }, { kind: "system", name: "bench" }));
      longest = Math.max(longest, performance.now() - before);
    }
  }
  return { longest, all: performance.now() - began };
}

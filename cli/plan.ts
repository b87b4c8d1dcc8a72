import { planDay, standardWeights } from "@/core/routes/plan";
import { Type } from "@sinclair/typebox";
import { parseArgs } from "node:util";
import { BadInput, readJson } from "./read-json";
import { checkPlace, checkSpans, checkUnique, Count, Id, Matrix, object, Skill, toSkill, travelBy } from "./shapes";

const Whole = Type.Integer({ minimum: -1_000_000_000, maximum: 1_000_000_000 });
const PlanInput = object({
  technicians: Type.Array(
    object({
      id: Id,
      skills: Type.Optional(Type.Array(Skill)),
      spans: Type.Array(Type.Tuple([Whole, Whole])),
      start: Count,
      end: Count,
    }),
  ),
  visits: Type.Array(
    object({
      id: Id,
      place: Count,
      minutes: Count,
      before: Type.Optional(Count),
      after: Type.Optional(Count),
      earliest: Whole,
      latest: Whole,
      skills: Type.Optional(Type.Array(Skill)),
      crew: Type.Optional(Type.Integer({ minimum: 1 })),
      technician: Type.Optional(Type.Union([Id, Type.Null()])),
      pinned: Type.Optional(Type.Boolean()),
    }),
  ),
  travel: Matrix,
  weights: Type.Optional(
    Type.Partial(
      Type.Object(
        Object.fromEntries(
          ["driving", "unplaced", "moved", "late", "overtime", "imbalance", "preferred"].map((name) => [
            name,
            Type.Number({ minimum: 0 }),
          ]),
        ),
      ),
      { additionalProperties: false },
    ),
  ),
});

/** `hogar plan [FILE] [--seed N] [--budget-ms N]`: who does what in which order. A first plan needs neither chance nor time: the two options are taken and change nothing yet. */
export function plan(args: string[]): void {
  const { values, positionals } = parseArgs({
    args,
    allowPositionals: true,
    options: { seed: { type: "string" }, "budget-ms": { type: "string" } },
  });
  for (const name of ["seed", "budget-ms"] as const)
    if (values[name] !== undefined && !/^\d+$/.test(values[name]))
      throw new BadInput(`--${name}`, `wanted a whole number, found “${values[name]}”`);
  const input = readJson(positionals[0], PlanInput);
  const started = performance.now();
  const travel = travelBy(input.travel);
  checkUnique(
    "technicians",
    input.technicians.map((t) => t.id),
  );
  checkUnique(
    "visits",
    input.visits.map((v) => v.id),
  );
  input.technicians.forEach((t, i) => {
    checkPlace(`technicians[${i}].start`, t.start, input.travel);
    checkPlace(`technicians[${i}].end`, t.end, input.travel);
    checkSpans(`technicians[${i}].spans`, t.spans);
  });
  input.visits.forEach((v, i) => {
    checkPlace(`visits[${i}].place`, v.place, input.travel);
    if (v.latest < v.earliest) throw new BadInput(`visits[${i}].latest`, "the latest arrival is before the earliest");
    if (v.technician && !input.technicians.some((t) => t.id === v.technician))
      throw new BadInput(`visits[${i}].technician`, `there is no technician “${v.technician}”`);
  });
  const answer = planDay({
    technicians: input.technicians.map((t) => ({ ...t, skills: (t.skills ?? []).map(toSkill) })),
    visits: input.visits.map((v) => ({
      ...v,
      before: v.before ?? 0,
      after: v.after ?? 0,
      skills: (v.skills ?? []).map(toSkill),
      crew: v.crew ?? 1,
      technician: v.technician ?? null,
      pinned: v.pinned ?? false,
    })),
    travel,
    weights: Object.fromEntries(
      Object.keys(standardWeights).flatMap((name) =>
        input.weights?.[name] === undefined ? [] : [[name, input.weights[name]]],
      ),
    ),
  });
  process.stdout.write(`${JSON.stringify({ ...answer, ms: Math.round(performance.now() - started) })}\n`);
}

import { Refusal } from "@/core/problems";
import { mustPerform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { tryAgain } from "@/modules/due/operations/try-again";
import { ownViews } from "@/registry/modules";
import { office, smallWorld } from "@demo/small-world";
import { type PieceByPiece, workThrough } from "./piece-by-piece";

/** Work on numbered things, of which some fail for a reason, as each stands in `things`. */
function worldOf(things: Map<number, { state: string; fails: "not-found" | "day-is-kept" | null }>) {
  const world = smallWorld();
  const tried: number[] = [];
  const piece: PieceByPiece = {
    job: "test",
    stateOf: (_, id) => things.get(id)?.state,
    wordsOf: (_, id) => `The thing ${id}`,
    work(_, id) {
      tried.push(id);
      const { fails } = things.get(id)!;
      return fails ? { ok: false, problem: new Refusal(fails).problem } : { ok: true, value: null };
    },
  };
  const turn = (due = [...things.keys()]) => workThrough(world.hogar, piece, due, Infinity);
  const needs = () => {
    const view = look(world.hogar, ownViews.today, {}, office);
    return view.ok ? view.value.needs.filter(({ again }) => again) : [];
  };
  return { ...world, tried, turn, needs };
}
const failing = (fails: "not-found" | "day-is-kept") => ({ state: "open", fails });

describe("what failed by itself", () => {
  it("is told by its cause, the newest first, each with one action that tries all of it again", () => {
    const things = new Map([1, 2, 3].map((id) => [id, failing("not-found")] as const));
    const w = worldOf(things);
    w.turn();
    w.later(60);
    things.set(4, failing("day-is-kept"));
    w.turn();
    expect(w.needs().map(({ words }) => words)).toEqual([
      "The thing 4: this could not be done by itself",
      expect.stringMatching(/^The thing \d and 2 more: this could not be done by itself$/),
    ]);
    // Nothing about it has changed: it is not tried by itself.
    w.tried.splice(0);
    w.turn();
    expect(w.tried).toEqual([]);
    mustPerform(w.hogar, tryAgain, w.needs()[1]!.again!, office);
    w.turn();
    expect(w.tried).toEqual([1, 2, 3]);
  });

  it("ends with what it is about: done otherwise, or cancelled", () => {
    const things = new Map([1, 2].map((id) => [id, failing("not-found")] as const));
    const w = worldOf(things);
    w.turn();
    // One is not due any more, and has changed; of the other nothing is different.
    things.get(1)!.state = "cancelled";
    w.turn([]);
    expect(w.needs().map(({ words }) => words)).toEqual(["The thing 2: this could not be done by itself"]);
  });

  it("is gone once it works", () => {
    const things = new Map<number, { state: string; fails: "not-found" | null }>([[1, failing("not-found") as never]]);
    const w = worldOf(things);
    w.turn();
    things.set(1, { state: "changed", fails: null });
    w.turn();
    expect(w.needs()).toEqual([]);
  });
});

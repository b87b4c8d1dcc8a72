import { passesByItself, type Problem, type Result } from "@/core/problems";
import type { FieldStep } from "@/core/visits/states";
import {
  dehydrate,
  type DehydratedState,
  hydrate,
  type Mutation,
  MutationObserver,
  QueryClient,
} from "@tanstack/react-query";

export interface KeptStep {
  visitId: number;
  to: FieldStep;
  /** What of the checklist was ticked, when the step was taken. */
  ticked?: string[];
  /** With what is done: in how many months its customer is asked again; null is not at all. */
  againMonths?: number | null;
}

/** A step that was taken on this phone, and how far it has come. */
export interface StepOnPhone extends KeptStep {
  id: number;
  /** Kept until the server has it; sent; or refused by it. */
  state: "kept" | "sent" | "refused";
  /** Why it is still kept, or why it was refused. */
  problem: Problem | null;
}

export interface StepQueueOptions {
  send: (step: KeptStep) => Promise<Result<unknown>>;
  storage: Pick<Storage, "getItem" | "setItem">;
  /** Pause before a step that could not be sent is sent again, in milliseconds. */
  pauseMs?: number;
  /** Something about the steps has changed. */
  onChange?: () => void;
}

export interface StepQueue {
  client: QueryClient;
  take: (step: KeptStep) => void;
  steps: () => StepOnPhone[];
  /** The person has read why a step was refused. */
  dismiss: (id: number) => void;
  /** Leaves what is kept where it is, for the next page. */
  close: () => void;
}

const storageKey = "hogar field steps";
const mutationKey = ["field step"];

/** What a mutation throws: a problem of the server's, or of the way there. */
class StepProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.sentence);
  }
}

/**
 * What was tapped is kept on the phone first and sent in order, one at a time: through a tunnel nothing is lost. A step
 * goes only when it is accepted or truly refused; whatever else comes in between (no signal, a busy server, a session
 * that has ended) it waits and is sent again. The queue is TanStack Query's, with all steps in one scope.
 */
export function makeStepQueue({ send, storage, pauseMs = 5_000, onChange = () => {} }: StepQueueOptions): StepQueue {
  const client = new QueryClient();
  // Mounted, it goes on by itself when the signal is back.
  client.mount();
  const cache = client.getMutationCache();
  client.setMutationDefaults(mutationKey, {
    scope: { id: "field steps" },
    gcTime: Infinity,
    retry: (_, error) => !(error instanceof StepProblem) || passesByItself(error.problem.code),
    retryDelay: pauseMs,
    async mutationFn(step: KeptStep) {
      const result = await send(step);
      if (!result.ok) throw new StepProblem(result.problem);
    },
  });
  hydrate(client, { mutations: readKept(storage), queries: [] } satisfies DehydratedState);
  const unsubscribe = cache.subscribe(() => {
    const { mutations } = dehydrate(client, {
      shouldDehydrateQuery: () => false,
      shouldDehydrateMutation: ({ state }) => state.status !== "success",
    });
    // An error keeps its problem, not its class.
    storage.setItem(
      storageKey,
      JSON.stringify(
        mutations.map((m) => ({
          ...m,
          state: {
            ...m.state,
            isPaused: true,
            error: problemOf(m.state.error),
            failureReason: problemOf(m.state.failureReason),
          },
        })),
      ),
    );
    onChange();
  });
  void client.resumePausedMutations();

  return {
    client,
    take: (step) =>
      void new MutationObserver<void, Error, KeptStep>(client, { mutationKey }).mutate(step).catch(() => {}),
    steps: () => cache.getAll().map((mutation) => stepOf(mutation as Mutation<unknown, unknown, KeptStep>)),
    dismiss(id) {
      const mutation = cache.getAll().find((m) => m.mutationId === id);
      if (mutation) cache.remove(mutation);
    },
    close() {
      unsubscribe();
      client.unmount();
      client.clear();
    },
  };
}

function stepOf({ mutationId, state }: Mutation<unknown, unknown, KeptStep>): StepOnPhone {
  const kept = state.status === "success" ? "sent" : state.status === "error" ? "refused" : "kept";
  return { ...state.variables!, id: mutationId, state: kept, problem: problemOf(state.error ?? state.failureReason) };
}

const problemOf = (error: unknown): Problem | null =>
  error instanceof StepProblem ? error.problem : ((error as Problem | null) ?? null);

/** The steps kept by an earlier page. One that cannot be read is left out, and does not end the page. */
function readKept(storage: StepQueueOptions["storage"]): DehydratedState["mutations"] {
  try {
    const kept = JSON.parse(storage.getItem(storageKey) ?? "[]") as unknown;
    return Array.isArray(kept) ? kept.filter(isStep) : [];
  } catch {
    return [];
  }
}

function isStep(entry: unknown): entry is DehydratedState["mutations"][number] {
  const variables = (entry as { state?: { variables?: Partial<KeptStep> } } | null)?.state?.variables;
  return typeof variables?.visitId === "number" && typeof variables.to === "string";
}

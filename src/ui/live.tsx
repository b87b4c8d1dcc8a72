"use client";
import { ask, type ViewInput, type ViewName, type ViewOutput } from "@/api/client";
import { passesByItself, type Problem } from "@/core/problems";
import Alert from "@mui/material/Alert";
import {
  keepPreviousData,
  QueryClient,
  QueryClientProvider,
  useQuery,
  useQueryClient,
  useSuspenseQuery,
} from "@tanstack/react-query";
import { type ReactNode, useCallback, useState, useSyncExternalStore } from "react";
import { AfterChange, KnownChange } from "./after-change";

/** A view that could not be read. */
class ReadProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.sentence);
  }
}

const queryOf = <N extends ViewName>(name: N, input: ViewInput<N>) => ({
  queryKey: [name, input],
  async queryFn(): Promise<ViewOutput<N>> {
    const result = await ask(name, input);
    if (!result.ok) throw new ReadProblem(result.problem);
    return result.value;
  },
});
const problemOf = (error: Error | null): Problem | null => (error instanceof ReadProblem ? error.problem : null);

/** What a screen shows, as the page has brought it; read again after every change, when somebody comes back to the tab, and every so often. */
export function useShown<N extends ViewName>(name: N, input: ViewInput<N>, everyMs?: number): ViewOutput<N> {
  return useSuspenseQuery({ ...queryOf(name, input), refetchInterval: everyMs ?? false }).data;
}

/** What is read when it is needed; `null` as input reads nothing. What was there stays until the next answer is. */
export function useLive<N extends ViewName>(name: N, input: ViewInput<N> | null, everyMs?: number) {
  const query = useQuery({
    ...queryOf(name, input as ViewInput<N>),
    enabled: input !== null,
    refetchInterval: everyMs ?? false,
    placeholderData: keepPreviousData,
  });
  return {
    data: input === null ? null : (query.data ?? null),
    problem: query.data === undefined ? problemOf(query.error) : null,
    loading: query.isFetching,
    refresh: useCallback(() => void query.refetch(), [query]),
  };
}

/** Reads again everything that is on the screen. */
export function useRefresh(): () => void {
  const client = useQueryClient();
  return useCallback(() => void client.invalidateQueries(), [client]);
}

/** Reading for the office and the field. Where reading again fails, what was read stays, and it says so. */
export function LiveProvider({ asOf, children }: { asOf?: number; children: ReactNode }) {
  const [client] = useState(
    () =>
      new QueryClient({
        defaultOptions: {
          queries: {
            staleTime: 5_000,
            retry: (tries, error) => tries < 2 && !!problemOf(error) && passesByItself(problemOf(error)!.code),
          },
        },
      }),
  );
  const afterChange = useCallback(() => client.invalidateQueries(), [client]);
  return (
    <QueryClientProvider client={client}>
      <AfterChange.Provider value={afterChange}>
        <KnownChange.Provider value={asOf}>
          <NotUpToDate client={client} />
          {children}
        </KnownChange.Provider>
      </AfterChange.Provider>
    </QueryClientProvider>
  );
}

function NotUpToDate({ client }: { client: QueryClient }) {
  const sentence = useSyncExternalStore(
    useCallback((changed) => client.getQueryCache().subscribe(changed), [client]),
    () => staleSentence(client),
    () => null,
  );
  if (sentence === null) return null;
  return (
    <Alert
      severity="warning"
      role="status"
      sx={{ position: "fixed", bottom: 12, left: "50%", transform: "translateX(-50%)", zIndex: 1400 }}
    >
      This may be out of date. {sentence}
    </Alert>
  );
}

function staleSentence(client: QueryClient): string | null {
  const failed = client
    .getQueryCache()
    .getAll()
    .find((query) => query.state.status === "error" && query.state.data !== undefined && query.isActive());
  return failed ? (problemOf(failed.state.error)?.sentence ?? null) : null;
}

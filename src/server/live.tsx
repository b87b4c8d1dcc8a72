import type { ViewInput, ViewName } from "@/registry/views";
import { dehydrate, HydrationBoundary, QueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { read } from "./read";

/** A view a page brings along: its name and what it is asked. */
type Brought<N extends ViewName = ViewName> = { [K in N]: readonly [K, ViewInput<K>] }[N];

/** Reads views as the person who is signed in, and hands them to the screen, which keeps them fresh (ui/live.tsx). */
export async function Bring({
  views,
  back,
  children,
}: {
  views: readonly Brought[];
  back: string;
  children: ReactNode;
}) {
  const client = new QueryClient();
  const bring = async <N extends ViewName>([name, input]: Brought<N>) =>
    client.setQueryData([name, input], await read(name, input, back));
  for (const view of views) await bring(view);
  return <HydrationBoundary state={dehydrate(client)}>{children}</HydrationBoundary>;
}

import type { ViewInput, ViewName } from "@/registry/views";
import { dehydrate, HydrationBoundary, QueryClient } from "@tanstack/react-query";
import type { ReactNode } from "react";
import { read } from "./read";

/** A view a page brings along: its name and what it is asked. */
export type Brought = { [N in ViewName]: readonly [N, ViewInput<N>] }[ViewName];

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
  for (const [name, input] of views) client.setQueryData([name, input], await read(name, input as never, back));
  return <HydrationBoundary state={dehydrate(client)}>{children}</HydrationBoundary>;
}

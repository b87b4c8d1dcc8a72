import { Bring } from "@/server/live";
import { messageLists, threadShows } from "./data";
import { Messages } from "./messages";

export const metadata = { title: "Messages" };

export default async function MessagesPage({
  searchParams,
}: {
  searchParams: Promise<{ list?: string; show?: string; open?: string }>;
}) {
  const asked = await searchParams;
  const list = messageLists.find((one) => one === asked.list) ?? "conversations";
  const show = threadShows.find((one) => one === asked.show) ?? "waiting";
  const open = asked.open === "new" ? "new" : /^\d+$/.test(asked.open ?? "") ? Number(asked.open) : null;
  return (
    <Bring back="/messages" views={list === "conversations" ? [["threads", { show, search: "", more: 0 }]] : []}>
      <Messages list={list} show={show} open={open} />
    </Bring>
  );
}

"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Skeleton from "@mui/material/Skeleton";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { useOffice } from "../office-context";
import { Top } from "../top";
import { Conversations } from "./conversations";
import type { MessageList, ThreadShow } from "./data";

const loading = () => <Skeleton variant="rounded" height={320} sx={{ mx: 6 }} />;
const Log = dynamic(() => import("./log").then((m) => m.Log), { loading });
const Campaigns = dynamic(() => import("./campaigns/campaigns").then((m) => m.Campaigns), { loading, ssr: false });
const Reviews = dynamic(() => import("./reviews").then((m) => m.Reviews), { loading, ssr: false });
const Figures = dynamic(() => import("./figures").then((m) => m.Figures), { loading, ssr: false });

const names: Record<MessageList, string> = {
  conversations: "Conversations",
  campaigns: "Campaigns",
  reviews: "Reviews",
  log: "What was sent",
  figures: "Figures",
};

/** What customers say and what was said to them. */
export function Messages({
  list,
  show,
  open,
}: {
  list: MessageList;
  show: ThreadShow;
  /** What is open: a conversation, a campaign, or a campaign that is begun. */
  open: number | "new" | null;
}) {
  const router = useRouter();
  const { permissions } = useOffice().person;
  const mayOpen = (part: MessageList) =>
    (part !== "campaigns" || permissions.includes("setup.change")) &&
    (part !== "reviews" || permissions.includes("visits.all"));
  return (
    <>
      <Top title="Messages" sum="" />
      <Tabs
        value={list}
        onChange={(_, next: MessageList) => router.push(`/messages?list=${next}`)}
        variant="scrollable"
        scrollButtons="auto"
        aria-label="Parts of Messages"
        sx={{ px: 6, borderBottom: `1px solid ${ink.line}`, flex: "none" }}
      >
        {(Object.keys(names) as MessageList[]).filter(mayOpen).map((value) => (
          <Tab key={value} value={value} label={names[value]} />
        ))}
      </Tabs>
      <Box sx={{ height: "calc(100dvh - 118px)", display: "flex", flexDirection: "column", overflow: "hidden" }}>
        {list === "conversations" && <Conversations show={show} open={open === "new" ? null : open} />}
        {list === "campaigns" && mayOpen(list) && <Campaigns open={open} />}
        {list === "reviews" && mayOpen(list) && <Reviews />}
        {list === "log" && <Log />}
        {list === "figures" && <Figures />}
      </Box>
    </>
  );
}

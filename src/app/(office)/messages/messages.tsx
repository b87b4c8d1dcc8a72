"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Skeleton from "@mui/material/Skeleton";
import Tab from "@mui/material/Tab";
import Tabs from "@mui/material/Tabs";
import dynamic from "next/dynamic";
import { useRouter } from "next/navigation";
import { Top } from "../top";
import { Conversations } from "./conversations";
import type { MessageList, ThreadShow } from "./data";

const loading = () => <Skeleton variant="rounded" height={320} sx={{ mx: 6 }} />;
const Log = dynamic(() => import("./log").then((m) => m.Log), { loading });
const Figures = dynamic(() => import("./figures").then((m) => m.Figures), { loading, ssr: false });

const names: Record<MessageList, string> = {
  conversations: "Conversations",
  log: "What was sent",
  figures: "Figures",
};

/** What customers say and what was said to them. */
export function Messages({ list, show, open }: { list: MessageList; show: ThreadShow; open: number | null }) {
  const router = useRouter();
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
        {Object.entries(names).map(([value, label]) => (
          <Tab key={value} value={value} label={label} />
        ))}
      </Tabs>
      <Box sx={{ height: "calc(100dvh - 118px)", display: "flex", flexDirection: "column", overflow: "hidden" }}>
        {list === "conversations" && <Conversations show={show} open={open} />}
        {list === "log" && <Log />}
        {list === "figures" && <Figures />}
      </Box>
    </>
  );
}

import { segmentsOf } from "@/core/messages/segments";
import Box from "@mui/material/Box";
import { ink } from "./palette";

interface SentMessage {
  id: number;
  channel: string;
  subject: string;
  body: string;
  state: string;
}

/** Messages to a customer; each opens to its words. The customer's link is never shown. */
export function MessageList({ messages }: { messages: readonly SentMessage[] }) {
  return messages.map((m) => (
    <Box component="details" key={m.id} sx={{ borderTop: `1px solid ${ink.line}`, py: 1.25, fontSize: 14.5 }}>
      <summary>
        {channelWords(m.channel)}: {m.subject || m.body.slice(0, 60)}{" "}
        <span style={{ color: m.state === "bounced" ? ink.ember : ink.ash }}>
          ({m.state}
          {m.channel === "text" && partsWords(m.body)})
        </span>
      </summary>
      <Box sx={{ whiteSpace: "pre-wrap", color: ink.ash, mt: 1 }}>
        {m.body.replaceAll("{{my_link}}", "[the customer’s link]")}
      </Box>
    </Box>
  ));
}

/** In how many parts a text goes out, where it is more than one, and what makes it dear. */
function partsWords(body: string): string {
  const { parts, dear } = segmentsOf(body);
  if (parts === 1) return "";
  return `, ${parts} parts${dear.length ? ` because of ${dear.slice(0, 4).join(" ")}` : ""}`;
}

export const channelWords = (channel: string): string => (channel === "mail" ? "email" : channel);

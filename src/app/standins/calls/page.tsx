import { standins } from "@/server/demo";
import { Calls } from "./calls";

export const metadata = { title: "Phone calls" };

/** The voice stand-in: calls that ring, and one's own. */
export default function CallsPage() {
  return <Calls calls={standins().voice.calls()} />;
}

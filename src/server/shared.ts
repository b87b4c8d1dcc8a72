import type { Hogar } from "@/kernel/hogar";
import path from "node:path";
import type { Answer, Asked } from "./body";

/** Given by the application as it starts, since it is there that its code is loaded once: `hogar serve` itself loads none of it. */
interface Direct {
  answer: Record<"views" | "operations", (name: string, asked: Asked) => Promise<Answer>>;
  /** Whether somebody is signed in by these cookies. */
  isSignedIn: (cookie: string) => Promise<boolean>;
}

/** The one application of this process. Kept globally, since the server loads its modules more than once. */
export const shared = globalThis as {
  hogar?: Hogar;
  begin?: () => void;
  /** When the days that can be booked are read. */
  ready?: Promise<void>;
  end?: () => Promise<void>;
  /** What `hogar serve` answers without Next. */
  direct?: Direct;
};

export const dataFolder = (): string => path.resolve(/* turbopackIgnore: true */ process.env.HOGAR_DATA ?? "data");

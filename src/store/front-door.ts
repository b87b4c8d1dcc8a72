import type { Question } from "@/core/catalogue/questions";
import { doorAnswersColumn, questionsColumn, tellsColumn, wordsColumn } from "./columns";
import type { Store } from "./database";
import type { Rows } from "./rows";

/** How the front door looks and what it says. */
export interface FrontDoorSettings {
  welcome: string;
  picture: string | null;
  /** #rrggbb, or empty for our own. */
  accent: string;
  ground: string;
  answers: { question: string; answer: string }[];
  /** Asked of every customer. */
  fields: Question[];
  paysAtDoor: boolean;
  doneWords: string;
  doneAddress: string;
  showsContact: boolean;
  takesWishes: boolean;
  /** Origins on which it may stand in a frame. */
  sites: string[];
  /** Whether directories may read what we do. */
  listed: boolean;
  /** Who in the office is told of new bookings. */
  tells: { way: "mail" | "text"; to: string }[];
}

type Row = Rows["front_door"];

export function readFrontDoor({ sql }: Pick<Store, "sql">): FrontDoorSettings {
  const row = sql<Row>("SELECT * FROM front_door WHERE id = 1").get()!;
  return {
    welcome: row.welcome,
    picture: row.picture,
    accent: row.accent,
    ground: row.ground,
    paysAtDoor: row.pays_at_door === 1,
    doneWords: row.done_words,
    doneAddress: row.done_address,
    showsContact: row.shows_contact === 1,
    takesWishes: row.takes_wishes === 1,
    listed: row.listed === 1,
    answers: doorAnswersColumn.read(row.answers),
    fields: questionsColumn.read(row.fields),
    sites: wordsColumn.read(row.sites),
    tells: tellsColumn.read(row.tells),
  };
}

import { momentIn } from "@/core/time/local-words";
import type { Needs } from "@/kernel/module";
import type { NeedsPerson } from "@/kernel/needs";
import type { ViewContext } from "@/kernel/operation";
import type { Rows } from "@/store/rows";

const mostShown = 10;

const lanes: Record<string, string> = {
  mail: "Emails do not go out",
  text: "Texts do not go out",
  voice: "Calls do not go out",
  cards: "The card service does not answer",
  rest: "Something is not done by itself",
};

const failingLanes = ({ sql, business }: ViewContext): NeedsPerson[] =>
  sql<Rows["lanes"]>("SELECT * FROM lanes WHERE paused_until > 0 ORDER BY failing_since")
    .all()
    .map(({ lane, failing_since, problem }) => ({
      kind: "trouble",
      words: `${lanes[lane]} since ${momentIn(failing_since, business.time_zone)}`,
      detail: `${problem}. It is tried again by itself, and nothing is lost meanwhile.`,
      href: lane === "cards" ? "/setup/payments" : "/setup/messages",
    }));

/** What failed by itself, by its cause, the newest first. */
const failedWork = ({ sql }: ViewContext): NeedsPerson[] =>
  sql<{ job: string; words: string; problem: string; n: number }>(
    `SELECT job, words, problem, count(*) AS n, max(failed_at) AS at FROM failed_work
      GROUP BY job, problem ORDER BY at DESC LIMIT ?`,
  )
    .all(mostShown)
    .map(({ job, words, problem, n }) => ({
      kind: "stuck",
      words:
        n === 1
          ? `${words}: this could not be done by itself`
          : `${words} and ${n - 1} more: this could not be done by itself`,
      detail: `${problem} It is tried again when something about it changes.`,
      href: "/today",
      again: { job, problem },
      ...(n > 1 && { n }),
    }));

const givenUp = ({ sql }: ViewContext): NeedsPerson[] =>
  sql<{ kind: string; last_problem: string }>(
    `SELECT kind, last_problem FROM outbox WHERE state = 'given up' AND kind NOT IN ('message', 'tell', 'reader', 'keep card')
      ORDER BY id DESC LIMIT ?`,
  )
    .all(mostShown)
    .map(({ kind, last_problem }) => ({
      kind: "stuck",
      words: `“${kind}” could not be carried out`,
      detail: last_problem,
      href: "/today",
    }));

/** What did not happen outside, or by itself, of whatever subject. */
export const stuckNeeds: readonly Needs[] = [failingLanes, failedWork, givenUp].map((read) => ({
  may: "office.see",
  read,
}));

import { type Answers, answerWords, type Question, shownQuestions } from "@/core/catalogue/questions";
import type { ItemTerms, Terms } from "@/core/catalogue/terms";
import type { ViewContext } from "@/kernel/operation";
import type { Item } from "./catalogue";

/** Answers as a job keeps them: in words, since the questions may change, and as they were given. */
export interface KeptAnswer {
  id: string;
  question: string;
  words: string;
  value: Answers[string];
  /** Tokens of pictures, where they are the answer. */
  photos?: string[];
}

export const keptAnswers = (questions: readonly Question[], answers: Answers): KeptAnswer[] =>
  shownQuestions(questions, answers).flatMap((question) => {
    const value = answers[question.id];
    return value === undefined
      ? []
      : [
          {
            id: question.id,
            question: question.words,
            words: answerWords(question, value),
            value,
            ...(question.kind === "photo" && { photos: value as string[] }),
          },
        ];
  });

interface StoredItem {
  position: number;
  service_id: number;
  quantity: number;
  answers: string;
  extras: string;
  terms: string;
  total_minor: number;
}

const storedItems = ({ sql }: Pick<ViewContext, "sql">, jobId: number): StoredItem[] =>
  sql<StoredItem>("SELECT * FROM job_items WHERE job_id = ? ORDER BY position").all(jobId);

/** What a job is made of, to be priced again. */
export const itemsOfJob = (context: Pick<ViewContext, "sql">, jobId: number): Item[] =>
  storedItems(context, jobId).map((item) => ({
    serviceId: item.service_id,
    quantity: item.quantity,
    extras: JSON.parse(item.extras) as Item["extras"],
    answers: Object.fromEntries((JSON.parse(item.answers) as KeptAnswer[]).map(({ id, value }) => [id, value])),
  }));

/** A job's terms, service by service, as they stood when it was agreed. */
export const termsOfJob = ({ sql }: Pick<ViewContext, "sql">, jobId: number): (ItemTerms & { name: string })[] =>
  sql<StoredItem & { name: string }>(
    "SELECT i.*, s.name FROM job_items i JOIN services s ON s.id = i.service_id WHERE job_id = ? ORDER BY i.position",
  )
    .all(jobId)
    .map((item) => ({ ...(JSON.parse(item.terms) as Terms), totalMinor: item.total_minor, name: item.name }));

/** What was answered for a job: of all its services, of the owner's own fields, and the photos that came with it. */
export function answersOfJob(context: Pick<ViewContext, "sql">, jobId: number): KeptAnswer[] {
  const job = context
    .sql<{ fields: string; photos: string }>("SELECT fields, photos FROM jobs WHERE id = ?")
    .get(jobId);
  if (!job) return [];
  const photos = JSON.parse(job.photos) as string[];
  return [
    ...storedItems(context, jobId).flatMap((item) =>
      (JSON.parse(item.answers) as KeptAnswer[]).map((answer) => ({ ...answer, id: `${item.position}-${answer.id}` })),
    ),
    ...(JSON.parse(job.fields) as KeptAnswer[]),
    ...(photos.length ? [{ id: "photos", question: "Photos", words: `${photos.length}`, value: photos, photos }] : []),
  ];
}

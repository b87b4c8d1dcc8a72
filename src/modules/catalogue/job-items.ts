import { type Item } from "@/core/catalogue/items";
import type { KeptAnswer } from "@/core/catalogue/questions";
import { type Answers, answerWords, type Question, shownQuestions } from "@/core/catalogue/questions";
import type { ItemTerms } from "@/core/catalogue/terms";
import { groupBy } from "@/core/group";
import type { ViewContext } from "@/kernel/operation";
import { extrasColumn, idsColumn, keptAnswersColumn, photosColumn, termsColumn } from "@/store/columns";
import type { Rows } from "@/store/rows";

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

type StoredItem = Rows["job_items"];

const storedItems = ({ sql }: Pick<ViewContext, "sql">, jobId: number): StoredItem[] =>
  sql<StoredItem>("SELECT * FROM job_items WHERE job_id = ? ORDER BY position").all(jobId);

/** What a job is made of, to be priced again. */
export const itemsOfJob = (context: Pick<ViewContext, "sql">, jobId: number): Item[] =>
  storedItems(context, jobId).map((item) => ({
    serviceId: item.service_id,
    quantity: item.quantity,
    extras: extrasColumn.read(item.extras),
    answers: Object.fromEntries(keptAnswersColumn.read(item.answers).map(({ id, value }) => [id, value])),
    ...(item.pattern_id !== null && { patternId: item.pattern_id }),
  }));

/** A job's terms, service by service, as they stood when it was agreed. */
export const termsOfJob = ({ sql }: Pick<ViewContext, "sql">, jobId: number): (ItemTerms & { name: string })[] =>
  sql<StoredItem & { name: string }>(
    "SELECT i.*, s.name FROM job_items i JOIN services s ON s.id = i.service_id WHERE job_id = ? ORDER BY i.position",
  )
    .all(jobId)
    .map((item) => ({ ...termsColumn.read(item.terms), totalMinor: item.total_minor, name: item.name }));

/** What was answered for jobs: of all their services, of the owner's own fields, and the photos that came with them. */
export function answersOfJobs(
  { sql }: Pick<ViewContext, "sql">,
  jobIds: readonly number[],
): (id: number) => KeptAnswer[] {
  const ids = idsColumn.write([...jobIds]);
  const items = groupBy(
    sql<StoredItem>(
      "SELECT * FROM job_items WHERE job_id IN (SELECT value FROM json_each(?)) ORDER BY job_id, position",
    ).all(ids),
    (item) => item.job_id,
  );
  const jobs = new Map(
    sql<{ id: number; fields: string; photos: string }>(
      "SELECT id, fields, photos FROM jobs WHERE id IN (SELECT value FROM json_each(?))",
    )
      .all(ids)
      .map((job) => [job.id, job]),
  );
  return (id) => {
    const job = jobs.get(id);
    if (!job) return [];
    const photos = photosColumn.read(job.photos);
    return [
      ...(items.get(id) ?? []).flatMap((item) =>
        keptAnswersColumn.read(item.answers).map((answer) => ({ ...answer, id: `${item.position}-${answer.id}` })),
      ),
      ...keptAnswersColumn.read(job.fields),
      ...(photos.length
        ? [{ id: "photos", question: "Photos", words: `${photos.length}`, value: photos, photos }]
        : []),
    ];
  };
}

export const answersOfJob = (context: Pick<ViewContext, "sql">, jobId: number): KeptAnswer[] =>
  answersOfJobs(context, [jobId])(jobId);

import { Refusal } from "@/core/problems";
import { Id, input } from "@/kernel/inputs";
import { actorWords, defineOperation } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";

/** A change of many begins: what is changed as a part of it can be taken back as one. */
export const beginRepeatBatch = defineOperation({
  name: "begin-repeat-batch",
  access: "board.change",
  input: input({ words: Type.String({ minLength: 1, maxLength: 200 }) }),
  run: ({ sql, now, actor }, { words }) => ({
    batchId: insertRow(sql, "repeat_batches", { words, made_at: now, made_by: actorWords(actor) }),
  }),
});

/** All that could be taken back of a change of many has been: it is offered no more. */
export const endRepeatBatch = defineOperation({
  name: "end-repeat-batch",
  access: "board.change",
  about: { batchId: "shared" },
  input: input({ batchId: Id }),
  run({ sql, now }, { batchId }) {
    if (sql("UPDATE repeat_batches SET undone_at = ? WHERE id = ?").run(now, batchId).changes === 0)
      throw new Refusal("not-found");
  },
});

import { Refusal } from "@/core/problems";
import { dayWords } from "@/core/time/words";
import { DateText, Id, input, OneOf, windowChosen } from "@/kernel/inputs";
import { firstLinkTokenOf, linkTokenOf } from "@/kernel/links";
import { actorWords, defineOperation, type OperationContext } from "@/kernel/operation";
import { tellAll, tellOffice } from "@/modules/messages/telling-us";
import { Type } from "@sinclair/typebox";
import { askAbout, askCustomer, type AskRow, openAsk } from "../asking";
import { bookAsked, declineAsked, takesPlace } from "../booking-asked";
import { AskToken } from "../inputs";
import { goesOn, laidOut, openDate } from "../repeats";

const token = AskToken.properties.token;
const BookAsked = input({ token, window: input(windowChosen) });
const AnswerAsked = input({
  token,
  answer: OneOf(["not this time", "call me"]),
  words: Type.String({ maxLength: 1000 }),
});
const OneDate = input({ repeatId: Id, date: DateText });
const BookAgain = input({ repeatId: Id, date: DateText, window: input(windowChosen) });

/** A customer who was asked takes a window by the link. */
export const bookAskedByLink = defineOperation({
  name: "book-asked",
  access: "anybody",
  input: BookAsked,
  run(context, { token, window }) {
    const ask = openAsk(context, token);
    if (ask.job_id !== null) return { link: firstLinkTokenOf(context.hogar, ask.job_id) };
    const jobId = bookAsked(context, ask, window, { office: false, by: "front door" });
    tellOffice(context, jobId);
    laidOut(context, ask.repeat_id);
    return { link: linkTokenOf(context.hogar, jobId) };
  },
});

/** A customer who was asked says not this time, or wants to be called. Until the day has come they may still choose a window. */
export const answerAsked = defineOperation({
  name: "answer-asked",
  access: "anybody",
  input: AnswerAsked,
  run(context, { token, answer, words }) {
    const ask = openAsk(context, token);
    if (ask.state === "booked") throw new Refusal("visit-not-open");
    if (answer === "not this time") {
      declineAsked(context, ask, words.trim());
      laidOut(context, ask.repeat_id);
    } else {
      takesPlace(context, ask);
      context
        .sql("UPDATE repeat_asks SET state = 'for us', answered_at = ?, answer = ? WHERE id = ?")
        .run(context.now, words.trim() || "Call me", ask.id);
      laidOut(context, ask.repeat_id);
    }
    tellOfAnswer(context, ask, answer, words.trim());
  },
});

function tellOfAnswer(context: OperationContext, ask: AskRow, answer: string, words: string): void {
  const { name, phone, line, service } = context
    .sql<{ name: string; phone: string; line: string; service: string }>(
      `SELECT c.name, c.phone, t.line, s.name AS service
        FROM repeats r JOIN customers c ON c.id = r.customer_id JOIN sites t ON t.id = r.site_id
          JOIN services s ON s.id = r.service_id
        WHERE r.id = ?`,
    )
    .get(ask.repeat_id)!;
  const what = `${name} says “${answer}” to ${service} around ${dayWords(ask.date)}`;
  tellAll(context, {
    key: `ask ${ask.id} answered at ${context.now}`,
    what,
    who: line,
    more: `${phone}${words ? `\n“${words}”` : ""}`,
  });
}

/** The office asks a customer by their link, earlier or once more than it would happen by itself. */
export const askNow = defineOperation({
  name: "ask-now",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneDate,
  run(context, { repeatId, date }) {
    const repeat = goesOn(context, repeatId);
    openDate(context, repeatId, date, { withoutRoom: true });
    askCustomer(context, repeat, date);
    laidOut(context, repeatId);
  },
});

/** The office has spoken with the customer, and books the date in a window somebody can keep. */
export const bookAgain = defineOperation({
  name: "book-again",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: BookAgain,
  run(context, { repeatId, date, window }) {
    const ask = askAbout(context, goesOn(context, repeatId).id, date);
    if (!ask || ask.state === "closed")
      throw new Refusal("not-found", { sentence: "Nobody has been asked about this date yet." });
    const jobId = bookAsked(context, ask, window, { office: true, by: actorWords(context.actor) });
    laidOut(context, repeatId);
    return { jobId };
  },
});

/** Nobody was reached, or they do not want it this time: the date is left out. */
export const leaveOutAsked = defineOperation({
  name: "leave-out-asked",
  access: "board.change",
  about: { repeatId: "repeat" },
  input: OneDate,
  run(context, { repeatId, date }) {
    const ask = askAbout(context, goesOn(context, repeatId).id, date);
    if (!ask || ask.state === "closed" || ask.job_id !== null) throw new Refusal("not-found");
    declineAsked(context, ask, "");
    laidOut(context, repeatId);
  },
});

/** What somebody who answers a message may mean. */
export type Meaning = "confirms" | "wishes to move" | "wishes to cancel" | "stop" | "start" | "help" | "thanks";

/** Words that networks want to be understood when they stand alone, and what they are in Spanish. */
const alone: Record<"stop" | "start" | "help", readonly string[]> = {
  stop: ["stop", "stopall", "stop all", "unsubscribe", "end", "quit", "baja", "alto", "parar"],
  start: ["start", "unstop", "alta"],
  help: ["help", "info", "ayuda"],
};

const yes =
  /^(c|y|yes|yep|yeah|yup|ok|okay|okey|sure|confirm|confirmed|i confirm|si|claro|vale|confirmo|confirmado|de acuerdo)\b/;
const justNo = /^(n|no|nope)$/;
const cancels =
  /\b(cancel(s|led|lar|o|en)?|call (it|this) off|no longer need|(do not|dont|don t) need|anul(ar|en|o)|ya no (lo |la )?(necesito|hace falta))\b/;
const moves =
  /\b(another (time|day|date)|(other|different) (time|day|date)|reschedul\w*|move (it|the|my|to)|postpone\w*|(an hour|hours?|bit|little|come|later|days?) (later|earlier)|later in|earlier in|(cannot|cant|can t|can not) (make|do)|(wont|won t|will not|am not|not) be? ?(home|there|in)|does(nt| not|n t) suit|not suit|instead|otr[ao] (hora|dia|fecha|momento)|mas (tarde|temprano|pronto)|cambiar|aplazar|mover|no puedo|no estare|no me viene)\b/;
const thanks =
  /^(thanks?|thank you|thx|many thanks|great|perfect|see you( then)?|gracias|muchas gracias|perfecto|genial)\b/;

/** Text as it is compared: small letters without marks, signs as spaces. A thumb up is a yes. */
const plain = (text: string): string =>
  text
    .replace(/👍|✅|✔/gu, " yes ")
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/['’]/g, " ")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/**
 * What an answer to a message means, as far as that is certain; nothing where it needs a person. Words that stand alone are
 * commands; a yes at the beginning confirms, unless the rest takes it back. Accents, capitals and signs do not matter.
 */
export function meaningsOf(text: string): Meaning[] {
  const said = plain(text);
  for (const command of ["stop", "start", "help"] as const)
    if (alone[command].includes(said.replace(/^please | please$| por favor$/g, ""))) return [command];
  const meanings: Meaning[] = [];
  const isCancelling = cancels.test(said);
  if (yes.test(said) && !isCancelling && said.length <= mostLettersOfYes) meanings.push("confirms");
  if (isCancelling) meanings.push("wishes to cancel");
  else if (moves.test(said) || justNo.test(said)) meanings.push("wishes to move");
  if (meanings.length === 0 && thanks.test(said) && said.length <= mostLettersOfThanks) meanings.push("thanks");
  return meanings;
}

/** What is longer says more than a yes, or than thanks: somebody reads it. */
const mostLettersOfYes = 160;
const mostLettersOfThanks = 40;

/** Whether an answer has been dealt with when it has been understood, or still waits for a person. */
export const isDealtWith = (meanings: readonly Meaning[]): boolean =>
  meanings.length > 0 && !meanings.includes("wishes to move") && !meanings.includes("wishes to cancel");

const beginsQuote = [
  /^\s*>/,
  /^\s*-{2,}\s*(original message|mensaje original)\s*-{2,}/i,
  /^\s*_{10,}\s*$/,
  /^\s*(on|el)\b.{6,200}(wrote|escribi[oó]):\s*$/i,
  /^\s*(from|de):\s.+@/i,
];

/** What somebody has written themselves in an email, without what they quote and their signature (RFC 3676, 4.3). */
export function ownWords(mail: string): string {
  const lines = mail.replace(/\r\n?/g, "\n").split("\n");
  // "On Tuesday … wrote:" may be broken into two lines.
  const end = lines.findIndex(
    (line, i) =>
      line === "-- " || beginsQuote.some((quote) => quote.test(line) || quote.test(asOne(line, lines[i + 1]))),
  );
  return (end < 0 ? lines : lines.slice(0, end)).join("\n").trim();
}

/** A line that introduces a quote, put together with the one on which it goes on. */
const asOne = (line: string, next = ""): string => (/^\s*(on|el)\b/i.test(line) ? `${line} ${next}` : "");

/** What a call's key means: 1 confirms, 2 asks to be called back. */
export const keyMeans = (pressed: string): Meaning[] =>
  pressed === "1" ? ["confirms"] : pressed === "2" ? ["wishes to move"] : [];

import type { Language } from "./languages";

/** What somebody who answers a message may mean. */
export type Meaning =
  | "confirms"
  /** There is a yes in it, and something else: a person decides. */
  | "says yes, and more"
  | "wishes to move"
  | "wishes to cancel"
  /** It names something that cannot wait. */
  | "danger"
  | "stop"
  | "start"
  | "help"
  | "thanks";

/** Words that networks want to be understood when they stand alone, and what they are in Spanish. */
const alone: Record<"stop" | "start" | "help", readonly string[]> = {
  stop: ["stop", "stopall", "stop all", "unsubscribe", "end", "quit", "baja", "alto", "parar"],
  start: ["start", "unstop", "alta"],
  help: ["help", "info", "ayuda"],
};

/** Yes, in one word or several. */
const yes =
  words(`c | y | yes | yep | yeah | yup | yes please | ok | okay | okey | k | sure | confirm | confirmed | confirming | i confirm |
  we confirm | that works | works for me | sounds good | absolutely | definitely | of course | si | sip | claro | claro que si | vale |
  confirmo | confirmado | confirmada | confirmamos | de acuerdo | por supuesto | okey | correcto | me viene bien | nos viene bien`);
/** What says nothing more: thanks, politeness, greetings. */
const thanks =
  words(`thanks | thank you | thanks a lot | thank you very much | thank you so much | thx | ty | many thanks | cheers | great |
  perfect | lovely | brilliant | wonderful | good | fine | all good | see you | see you then | see you soon | looking forward |
  looking forward to it | gracias | muchas gracias | mil gracias | muchisimas gracias | perfecto | genial | estupendo | fenomenal |
  bien | muy bien | todo bien | hasta entonces | hasta luego | nos vemos | nos vemos entonces`);
const polite =
  words(`please | hi | hello | hey | dear | good morning | good afternoon | good evening | regards | best | best regards |
  kind regards | have a nice day | have a good day | all | team | everybody | everyone | it | the visit | that | por favor | hola | buenos dias |
  buenas tardes | buenas noches | buenas | saludos | un saludo | feliz dia | buen dia | a todos | la visita | la cita`);

const justNo = /^(n|no|nope)$/;
const cancels =
  /\b(cancel\w*|call (it|this) off|no longer need|(do not|dont|don t) need|anul(ar|en|o)|ya no (lo |la )?(necesito|hace falta))\b/;
/** Said not to be done. */
const notCancels = /\b(not|dont|don t|never|no)( \w+){0,3} (cancel|call (it|this) off|anul)/;
const moves =
  /\b(another (time|day|date)|(other|different) (time|day|date)|reschedul\w*|move (it|the|my|to)|postpone\w*|(an hour|hours?|bit|little|come|later|days?) (later|earlier)|later in|earlier in|(cannot|cant|can t|can not) (make|do)|(wont be|won t be|will not be|not be|am not|m not|are not) (home|there|in)|does(nt| not|n t) suit|not suit|instead|otr[ao] (hora|dia|fecha|momento)|mas (tarde|temprano|pronto)|cambiar|aplazar|mover|no puedo|no estare|no me viene)\b/;
/** Signs that say as much as a yes, or as thanks; any other picture may say anything. */
const yesSigns = /👍|✅|✔|👌/gu;
const kindSigns = /🙏|😊|🙂|😀|😃|😄|❤|♥|👏|🎉|🏻|🏼|🏽|🏾|🏿/gu;

/** Text as it is compared: small letters without marks, signs as spaces. A thumb up is a yes. */
const plain = (text: string): string =>
  text
    .replace(yesSigns, " yes ")
    .replace(kindSigns, " ")
    .normalize("NFD")
    .replace(/\p{M}/gu, "")
    .toLowerCase()
    .replace(/['’]/g, " ")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();

/** Phrases apart by a line, as sets by how many words they have. */
function words(list: string): ReadonlySet<string> {
  return new Set(list.split("|").map((phrase) => phrase.trim().replace(/\s+/g, " ")));
}
const longestPhrase = 5;

/** Words by which somebody says that they are in danger, as long as the owner has named none. */
export const dangers: Record<Language, readonly string[]> = {
  en: ["gas", "smoke", "leak", "flood", "fire", "burning", "sparks", "carbon monoxide", "water everywhere"],
  es: ["gas", "humo", "fuga", "escape", "inundación", "inundado", "inunda", "fuego", "incendio", "chispas", "monóxido"],
};
const endings = new Set(["", "s", "es", "ing", "ed", "y", "ado", "ada", "ando", "ndo", "dos", "das"]);

/** Whether a text has one of some words in it, in whatever form. */
function names(said: string, dangerous: readonly string[]): boolean {
  const tokens = said.split(" ");
  return dangerous
    .map(plain)
    .some((word) =>
      word.includes(" ")
        ? ` ${said} `.includes(` ${word} `)
        : word !== "" && tokens.some((token) => token.startsWith(word) && endings.has(token.slice(word.length))),
    );
}

/** What may be known of whoever writes. */
interface Known {
  /** Theirs and ours: to be called by name says nothing more. */
  names?: readonly string[];
  dangers?: readonly string[];
}

/**
 * What an answer to a message means, as far as that is certain; nothing where it needs a person. Words that stand alone are
 * commands. A short answer made of nothing but yes, thanks, names and signs confirms; a yes with anything more does not, it is
 * only said that there was one. Accents, capitals and signs do not matter; a question mark does.
 */
export function meaningsOf(
  text: string,
  { names: called = [], dangers: dangerous = allDangers }: Known = {},
): Meaning[] {
  const said = plain(text);
  for (const command of ["stop", "start", "help"] as const)
    if (alone[command].includes(said.replace(/^please | please$| por favor$/g, ""))) return [command];
  const meanings: Meaning[] = [];
  if (names(said, dangerous) && !onlyAsksWhatWeDo(text, said)) meanings.push("danger");
  const isSure =
    !/[?¿]/.test(text) && !/\p{Extended_Pictographic}/u.test(text.replace(yesSigns, "").replace(kindSigns, ""));
  const kinds =
    said.length <= mostLetters ? kindsOf(said, new Set(called.flatMap((name) => plain(name).split(" ")))) : null;
  const isCancelling = cancels.test(said) && !notCancels.test(said);
  if (isSure && kinds?.has("yes") && !meanings.length) return ["confirms"];
  if (isSure && kinds?.has("thanks") && !meanings.length) return ["thanks"];
  if (beginsWithYes(said)) meanings.push("says yes, and more");
  if (isCancelling) meanings.push("wishes to cancel");
  else if (moves.test(said) || justNo.test(said)) meanings.push("wishes to move");
  return meanings;
}

/** How somebody asks what work we do: "Do you also do gas boilers?" */
const asksWhatWeDo =
  /^(?:hi |hello |hey )?(?:do|can|could|would) you (?:guys |also |even |still )?(?:do|offer|sell|install|service|repair|fit|work|check|clean|sweep|have)\b|^(?:hola )?(?:tambien )?(?:hacen|hacéis|haceis|ofrecen|venden|instalan|reparan|limpian|revisan|trabajan)\b/;
const somethingIsWrong =
  /\b(?:smell|smells|leak|leaks|leaking|leaked|burning|now|urgent|urgently|help|please come|everywhere|my|our|huele|fuga|escape|ahora|urgente|ayuda|mi|nuestra|nuestro)\b/;
/** What is longer than this may say more than it asks; where it is not certain, it is danger. */
const mostWordsAsked = 8;
/** Whether a text is one short question about what work we do, and says nothing of what is wrong. */
const onlyAsksWhatWeDo = (text: string, said: string): boolean =>
  text.trim().endsWith("?") &&
  said.split(" ").length <= mostWordsAsked &&
  asksWhatWeDo.test(said) &&
  !somethingIsWrong.test(said);

const allDangers = [...dangers.en, ...dangers.es];

/** What is longer says more than a yes, or than thanks: somebody reads it. */
const mostLetters = 80;

/** The kinds of phrases of which a text is made; null where something else stands in it. */
function kindsOf(said: string, called: ReadonlySet<string>): Set<"yes" | "thanks"> | null {
  const tokens = said.split(" ").filter(Boolean);
  const kinds = new Set<"yes" | "thanks">();
  for (let at = 0; at < tokens.length;) {
    const known = phraseAt(tokens, at);
    if (known) {
      if (known.kind) kinds.add(known.kind);
      at += known.words;
    } else if (called.has(tokens[at]!)) at++;
    else return null;
  }
  return kinds;
}

/** The longest known phrase that begins at a word. */
function phraseAt(tokens: readonly string[], at: number): { kind: "yes" | "thanks" | null; words: number } | null {
  for (let words = Math.min(longestPhrase, tokens.length - at); words > 0; words--) {
    const phrase = tokens.slice(at, at + words).join(" ");
    if (yes.has(phrase)) return { kind: "yes", words };
    if (thanks.has(phrase)) return { kind: "thanks", words };
    if (polite.has(phrase)) return { kind: null, words };
  }
  return null;
}

const beginsWithYes = (said: string): boolean => phraseAt(said.split(" "), 0)?.kind === "yes";

/** Whether an answer has been dealt with when it has been understood, or still waits for a person. */
export const isDealtWith = (meanings: readonly Meaning[]): boolean =>
  meanings.length > 0 && meanings.every((meaning) => dealtWith.has(meaning));
const dealtWith: ReadonlySet<Meaning> = new Set(["confirms", "thanks", "stop", "start", "help"]);

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

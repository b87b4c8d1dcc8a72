import type { Language } from "./languages";

/** Words with which an answer begins, by language; one that is empty is not offered in that language. */
export interface QuickAnswer {
  name: string;
  words: Record<Language, string>;
}

/** Those that a business starts with. */
export const startingAnswers: readonly QuickAnswer[] = [
  {
    name: "Their page",
    words: {
      en: "Everything about your visit, and another time if you need one: {{my_link}}",
      es: "Todo sobre su visita, y otra hora si la necesita: {{my_link}}",
    },
  },
  {
    name: "We call you",
    words: { en: "Thank you. One of us calls you today.", es: "Gracias. Hoy le llamamos." },
  },
  {
    name: "Photo, please",
    words: {
      en: "Could you send us a photo of it? You can answer this message with it.",
      es: "¿Nos puede mandar una foto? Puede responder a este mensaje con ella.",
    },
  },
  { name: "Thank you", words: { en: "Thank you, we have noted that.", es: "Gracias, lo hemos anotado." } },
];

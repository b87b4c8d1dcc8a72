import { ImageToken, input, Mail, Name, Phone } from "@/kernel/inputs";
import { Questions } from "@/modules/catalogue/inputs";
import { type Static, Type } from "@sinclair/typebox";

const Colour = Type.String({ pattern: "^(#[0-9a-f]{6})?$", patternSentence: "Choose a colour." });
/** Addresses of the web only: nothing that runs, nothing of another kind. */
const WebAddress = Type.String({ format: "web-address", maxLength: 300 });
export const SaveFrontDoor = input({
  welcome: Type.String({ maxLength: 600 }),
  picture: ImageToken,
  accent: Colour,
  ground: Colour,
  answers: Type.Array(input({ question: Name, answer: Type.String({ minLength: 1, maxLength: 1000 }) }), {
    maxItems: 20,
  }),
  fields: Questions,
  paysAtDoor: Type.Boolean(),
  doneWords: Type.String({ maxLength: 1000 }),
  doneAddress: Type.Union([Type.Literal(""), WebAddress]),
  showsContact: Type.Boolean(),
  takesWishes: Type.Boolean(),
  sites: Type.Array(WebAddress, { maxItems: 20, uniqueItems: true }),
  tells: Type.Array(
    Type.Union([input({ way: Type.Literal("mail"), to: Mail }), input({ way: Type.Literal("text"), to: Phone })]),
    { maxItems: 20 },
  ),
});
export type SaveFrontDoor = Static<typeof SaveFrontDoor>;

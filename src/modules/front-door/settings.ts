import { isOrigin } from "@/core/look/origins";
import { questionProblems } from "@/core/catalogue/question-check";
import { effectsIn } from "@/core/catalogue/questions";
import { contrast, textContrast } from "@/core/look/contrast";
import { lookOf } from "@/core/look/front-door";
import { Refusal } from "@/core/problems";
import type { OperationContext } from "@/kernel/operation";
import type { SaveFrontDoor } from "./inputs";

/** How the front door looks, what it says and asks, and who hears of bookings, from now on. */
export function changeFrontDoor({ sql }: OperationContext, door: SaveFrontDoor): void {
  const fields: Record<string, string> = {};
  const { accent, ground, text, onAccent } = lookOf(door);
  if (contrast(text, ground) < textContrast)
    fields["/ground"] = "Text could not be read on this colour. Choose a lighter one.";
  else if (contrast(accent, ground) < textContrast || contrast(accent, onAccent) < textContrast)
    fields["/accent"] = "Too little contrast: words in this colour could not be read. Choose a darker one.";
  for (const [at, sentence] of Object.entries(questionProblems(door.fields))) fields[`/fields${at}`] = sentence;
  door.fields.forEach((field, i) => {
    if (!["text", "one", "yes-no", "tick"].includes(field.kind) || effectsIn(field).length > 0)
      fields[`/fields/${i}`] = "A field is answered with words, a choice, a yes or no, or a tick, and changes nothing.";
  });
  door.sites.forEach((site, i) => {
    if (!isOrigin(URL.parse(site)?.origin ?? ""))
      fields[`/sites/${i}`] = "Write an address such as https://marrowick.example.";
  });
  if (Object.keys(fields).length) throw new Refusal("invalid-input", { fields });
  const origins = door.sites.map((site) => new URL(site).origin);
  sql(
    `UPDATE front_door
      SET welcome = ?, picture = ?, accent = ?, ground = ?, answers = ?, fields = ?, pays_at_door = ?,
        done_words = ?, done_address = ?, shows_contact = ?, takes_wishes = ?, sites = ?, tells = ?`,
  ).run(
    door.welcome.trim(),
    door.picture,
    door.accent,
    door.ground,
    JSON.stringify(door.answers),
    JSON.stringify(door.fields),
    door.paysAtDoor ? 1 : 0,
    door.doneWords.trim(),
    door.doneAddress,
    door.showsContact ? 1 : 0,
    door.takesWishes ? 1 : 0,
    JSON.stringify([...new Set(origins)]),
    JSON.stringify(door.tells),
  );
}

import { checkInput } from "@/kernel/check-input";
import { input, Mail } from "@/kernel/inputs";
import { personOfMail, signIn, signOut } from "@/registry/routes";
import { browserWords } from "@/server/browser-words";
import { addressOf, jsonOf } from "@/server/guard";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";
import { getSession, knownBrowser } from "@/server/session";
import { countTry, forgive } from "@/server/sign-in-limits";
import { Type } from "@sinclair/typebox";

const SignIn = input({
  mail: Mail,
  password: Type.String({ minLength: 1, maxLength: 200 }),
  /** The second factor, once it has been asked for. */
  code: Type.Optional(Type.String({ maxLength: 40 })),
});

/** Signs in. */
export const POST = (request: Request): Promise<Response> =>
  answered(request, async () => {
    const hogar = getHogar();
    const asked = checkInput(SignIn, await jsonOf(request));
    const address = addressOf(request.headers);
    const browser = await knownBrowser();
    const person = personOfMail(hogar, asked.mail);
    const attempt = { mail: asked.mail, address, known: person !== null && (browser.people ?? []).includes(person) };
    await countTry(attempt);
    const from = { browser: browserWords(request.headers.get("user-agent")), address };
    const result = await signIn(hogar, asked, from);
    if (!result.ok) {
      // Being asked for the second factor is no failure.
      if (result.problem.code === "second-factor") forgive(attempt);
      return result;
    }
    forgive(attempt);
    const session = await getSession();
    session.id = result.value.sessionId;
    await session.save();
    browser.people = [...new Set([result.value.personId, ...(browser.people ?? [])])].slice(0, 10);
    await browser.save();
    return { ok: true, value: { home: result.value.home } };
  });

/** Signs out: the session ends on the server too. */
export const DELETE = (request: Request): Promise<Response> =>
  answered(request, async () => {
    await jsonOf(request);
    const session = await getSession();
    if (session.id) signOut(getHogar(), session.id);
    session.destroy();
    return { ok: true, value: null };
  });

import { checkInput } from "@/kernel/check-input";
import { input, Mail } from "@/kernel/inputs";
import { refused } from "@/kernel/operation";
import { signIn, signOut } from "@/registry/routes";
import { addressOf, answer, jsonOf, limit } from "@/server/guard";
import { getHogar } from "@/server/hogar";
import { getSession } from "@/server/session";
import { Type } from "@sinclair/typebox";

const SignIn = input({ mail: Mail, password: Type.String({ minLength: 1, maxLength: 200 }) });

/** Signs in. Tries are counted by address and by account, so that neither many doors nor many hands help. */
export async function POST(request: Request): Promise<Response> {
  try {
    const { mail, password } = checkInput(SignIn, await jsonOf(request));
    await limit("signInOfAccount", `mail ${mail.toLowerCase()}`);
    await limit("signInFromAddress", `address ${addressOf(request)}`);
    const result = await signIn(getHogar(), mail, password);
    if (!result.ok) return answer(result);
    const session = await getSession();
    session.id = result.value.sessionId;
    await session.save();
    return answer({ ok: true, value: { home: result.value.home } });
  } catch (error) {
    return answer(refused(error));
  }
}

/** Signs out: the session ends on the server too. */
export async function DELETE(request: Request): Promise<Response> {
  try {
    await jsonOf(request);
    const session = await getSession();
    if (session.id) signOut(getHogar(), session.id);
    session.destroy();
    return answer({ ok: true, value: null });
  } catch (error) {
    return answer(refused(error));
  }
}

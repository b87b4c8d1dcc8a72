import { Refusal } from "@/core/problems";
import { checkInput } from "@/kernel/check-input";
import { input } from "@/kernel/inputs";
import { addOwnFactor, changeOwnPassword, endOthers, removeOwnFactor } from "@/registry/routes";
import { jsonOf, limit } from "@/server/guard";
import { answered } from "@/server/guarded";
import { getHogar } from "@/server/hogar";
import { signedIn } from "@/server/session";
import { Type } from "@sinclair/typebox";

const text = Type.String({ minLength: 1, maxLength: 200 });
const ChangePassword = input({ old: text, password: text });
const AddFactor = input({
  password: text,
  secret: Type.String({ pattern: "^[A-Z2-7]{32}$" }),
  code: Type.String({ maxLength: 20 }),
});
const RemoveFactor = input({ password: text });

/** What somebody changes about their own way in: their password and their second factor. Each checks the password, which takes its time, so that these are no operations. */
export const POST = (request: Request, { params }: { params: Promise<{ what: string }> }): Promise<Response> =>
  answered(request, async () => {
    const hogar = getHogar();
    const actor = await signedIn();
    if (!actor) throw new Refusal("not-signed-in");
    await limit("scarce", `account of ${actor.id}`);
    const body = await jsonOf(request);
    switch ((await params).what) {
      case "password":
        await changeOwnPassword(hogar, actor, checkInput(ChangePassword, body));
        return { ok: true, value: { ended: endOthers(hogar, actor) } };
      case "add-second-factor":
        return { ok: true, value: { recovery: await addOwnFactor(hogar, actor, checkInput(AddFactor, body)) } };
      case "remove-second-factor":
        await removeOwnFactor(hogar, actor, checkInput(RemoveFactor, body));
        return { ok: true, value: null };
      default:
        throw new Refusal("not-found");
    }
  });

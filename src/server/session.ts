import type { Actor } from "@/core/people/permissions";
import { actorOfLink } from "@/kernel/links";
import { actorOfSession } from "@/registry/routes";
import { getIronSession, type SessionOptions, unsealData } from "iron-session";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import type { Asked } from "./body";
import { getHogar } from "./hogar";

interface SessionData {
  id?: string;
}

/** Newest key last: it seals, the others still open. */
const passwords = (use: "sessions" | "browsers"): Record<string, string> =>
  Object.fromEntries(
    getHogar()
      .keys.all(use)
      .toReversed()
      .map((key, i) => [String(i + 1), key]),
  );
const cookieOptions = () =>
  ({ httpOnly: true, sameSite: "lax", secure: getHogar().publicUrl.startsWith("https:"), path: "/" }) as const;
const options = (): SessionOptions => ({
  password: passwords("sessions"),
  cookieName: "hogar",
  cookieOptions: cookieOptions(),
});

export const getSession = async () => getIronSession<SessionData>(await cookies(), options());

export async function signedIn(): Promise<Extract<Actor, { kind: "person" }> | null> {
  const { id } = await getSession();
  return id ? actorOfSession(getHogar(), id) : null;
}

/** For pages: whoever is not signed in goes to the sign-in page and comes back. */
export async function mustBeSignedIn(back: string): Promise<Extract<Actor, { kind: "person" }>> {
  return (await signedIn()) ?? redirect(`/signin?to=${encodeURIComponent(back)}`);
}

/** The session's cookie, as a request brings it. */
const sessionCookie = /(?:^|;\s*)hogar=([^;]+)/;

/** Whoever is signed in by the cookies of a request; null where nobody is, or the cookie is none of ours. */
export async function personOfCookies(cookie: string | null): Promise<Extract<Actor, { kind: "person" }> | null> {
  const sealed = sessionCookie.exec(cookie ?? "")?.[1];
  if (!sealed) return null;
  try {
    const { id } = await unsealData<SessionData>(decodeURIComponent(sealed), { password: passwords("sessions") });
    return id ? actorOfSession(getHogar(), id) : null;
  } catch {
    return null;
  }
}

/** Who sends a request: whoever is signed in, by a customer's link where one is given, or a visitor. Somebody of the business never acts as a customer. */
export async function actorOf({ headers }: Pick<Asked, "headers">): Promise<Actor> {
  const person = await personOfCookies(headers.get("cookie"));
  if (person) return person;
  const token = headers.get("x-hogar-link");
  return (token && actorOfLink(getHogar(), token)) || { kind: "visitor" };
}

interface KnownBrowser {
  people?: number[];
}
const yearSeconds = 365 * 86_400;

/** Who has signed in with this browser before: they go on even while others try their account. */
export const knownBrowser = async () =>
  getIronSession<KnownBrowser>(await cookies(), {
    password: passwords("browsers"),
    cookieName: "hogar-known",
    ttl: yearSeconds,
    cookieOptions: { ...cookieOptions(), maxAge: yearSeconds },
  });

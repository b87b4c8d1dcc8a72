import type { Actor } from "@/core/people/permissions";
import { actorOfLink } from "@/kernel/links";
import { actorOfSession } from "@/registry/routes";
import { getIronSession, type SessionOptions } from "iron-session";
import { cookies } from "next/headers";
import { redirect } from "next/navigation";
import { getHogar } from "./hogar";

interface SessionData {
  id?: string;
}

const options = (): SessionOptions => ({
  password: getHogar().secret,
  cookieName: "hogar",
  cookieOptions: { httpOnly: true, sameSite: "lax", secure: getHogar().publicUrl.startsWith("https:"), path: "/" },
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

/** Who sends a request: by customer's link where one is given, by session, or as a visitor. */
export async function actorOf(request: Request): Promise<Actor> {
  const token = request.headers.get("x-hogar-link");
  if (token) return actorOfLink(getHogar(), token) ?? { kind: "visitor" };
  return (await signedIn()) ?? { kind: "visitor" };
}

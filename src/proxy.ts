import { isOrigin } from "@/core/look/origins";
import { readFrontDoor } from "@/store/front-door";
import { type NextRequest, NextResponse } from "next/server";
import { addressOf, isWithin } from "./server/guard";
import { getHogar } from "./server/hogar";
import { browserCookie } from "./server/origin";

/** What may stand in a frame on the owner's sites: customers' pages, and the card form within them. */
const framed = /^\/(book|my|wish|quote|invoice|standins\/cards)(\/|$)/;

const booking = /^\/book(\/|$)/;

/** Security headers on every page: own scripts only (by nonce), no framing but by ourselves and the owner's sites, nothing told to others. */
export async function proxy(request: NextRequest): Promise<NextResponse> {
  const nonce = Buffer.from(crypto.randomUUID()).toString("base64");
  const hogar = getHogar();
  const { pathname } = request.nextUrl;
  if (pathname.startsWith("/standins") && !hogar.standins) return new NextResponse("Not found", { status: 404 });
  if (!(await isWithin("pages", addressOf(request.headers))))
    return new NextResponse("Too many pages at once. Wait a minute and try again.", { status: 429 });
  const sites =
    framed.test(pathname) && pathname !== "/book/preview" ? readFrontDoor(hogar.store).sites.filter(isOrigin) : [];
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic'${process.env.NODE_ENV === "development" ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data:",
    "connect-src 'self'",
    "frame-src 'self'",
    `frame-ancestors ${["'self'", ...sites].join(" ")}`,
    "base-uri 'self'",
    "form-action 'self'",
    "object-src 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("content-security-policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("content-security-policy", policy);
  response.headers.set("x-content-type-options", "nosniff");
  response.headers.set("referrer-policy", "no-referrer");
  // This header knows no list of sites; where there is one, the policy above says it.
  if (sites.length === 0) response.headers.set("x-frame-options", "SAMEORIGIN");
  response.headers.set("permissions-policy", "camera=(), microphone=(), geolocation=()");
  // Counts what one browser keeps of our room: a random name, handed out with the pages on which one books.
  if (booking.test(pathname) && !request.cookies.has(browserCookie))
    response.cookies.set(browserCookie, crypto.randomUUID(), {
      httpOnly: true,
      sameSite: "lax",
      secure: hogar.publicUrl.startsWith("https:"),
      maxAge: 400 * 86_400,
    });
  return response;
}

/** What is no page needs no policy, and is answered twice as fast without; its headers stand in next.config.mjs. */
export const config = { matcher: ["/((?!api/|_next/static|favicon|icon).*)"] };

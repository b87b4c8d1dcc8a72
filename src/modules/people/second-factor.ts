import { Secret, TOTP } from "otpauth";

/** Codes of an authenticator app (TOTP, RFC 6238): six digits, thirty seconds, one step of grace to either side. */
const period = 30;
const totp = (secret: string, issuer = "Hogar", label = ""): TOTP =>
  new TOTP({ issuer, label, secret: Secret.fromBase32(secret), algorithm: "SHA1", digits: 6, period });

/** A new shared secret, in base 32. */
export const newTotpSecret = (): string => new Secret({ size: 20 }).base32;

/** What an authenticator app reads as a picture (otpauth://). */
export const totpAddress = (secret: string, issuer: string, label: string): string =>
  totp(secret, issuer, label).toString();

/** The time step of a code that is right at this moment, or null. Whoever has used a step uses only later ones. */
export function stepOf(secret: string, code: string, atMs: number): number | null {
  const token = code.replace(/\s/g, "");
  if (!/^\d{6}$/.test(token)) return null;
  const delta = totp(secret).validate({ token, window: 1, timestamp: atMs });
  return delta === null ? null : Math.floor(atMs / 1000 / period) + delta;
}

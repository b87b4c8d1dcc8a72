import { createCipheriv, createDecipheriv, createHmac, hkdfSync, randomBytes, timingSafeEqual } from "node:crypto";

/** What the installation's secret is used for: each use has a key of its own, so that what one gives away opens nothing else. */
type Use =
  | "sessions"
  | "links"
  | "own links"
  | "holds"
  | "codes"
  | "origins"
  | "second factors"
  | "browsers"
  | "message ids"
  | "tries"
  | "questions"
  | "short links"
  | "messages"
  | "card stand-in"
  | "mail stand-in"
  | "text stand-in"
  | "voice stand-in"
  | "reader stand-in";

/** Keys of the installation, derived from its secret (HKDF, RFC 5869). Earlier secrets still open what they have sealed. */
export interface Keys {
  /** The key that seals now. */
  of: (use: Use) => string;
  /** All keys that still open, the one of `of` first. */
  all: (use: Use) => string[];
}

/** `secrets`: the newest first. */
export function keysOf(secrets: readonly string[]): Keys {
  const made = new Map<string, string[]>();
  const all = (use: Use): string[] => {
    let keys = made.get(use);
    if (!keys)
      made.set(
        use,
        (keys = secrets.map((secret) => Buffer.from(hkdfSync("sha256", secret, "", use, 32)).toString("base64url"))),
      );
    return keys;
  };
  return { all, of: (use) => all(use)[0]! };
}

/** A keyed hash: equal for equal texts, and nothing else can be told from it without the key. */
export const hashed = (keys: Keys, use: Use, text: string): string => mac(keys.of(use), text);

/** Whether a hash is that of a text, under any key that still opens. Takes the same time whether or not. */
export function isHashOf(keys: Keys, use: Use, text: string, hash: string): boolean {
  const given = Buffer.from(hash);
  return keys.all(use).some((key) => {
    const expected = Buffer.from(mac(key, text));
    return expected.length === given.length && timingSafeEqual(expected, given);
  });
}

const mac = (key: string, text: string): string => createHmac("sha256", key).update(text).digest("base64url");

/** Sealed so that it can be read again (AES-256-GCM). */
export function sealed(keys: Keys, use: Use, text: string): string {
  const iv = randomBytes(12);
  const cipher = createCipheriv("aes-256-gcm", Buffer.from(keys.of(use), "base64url"), iv);
  const body = Buffer.concat([cipher.update(text, "utf8"), cipher.final()]);
  return Buffer.concat([iv, cipher.getAuthTag(), body]).toString("base64url");
}

/** What was sealed, or null where no key that is left opens it. */
export function unsealed(keys: Keys, use: Use, text: string): string | null {
  const bytes = Buffer.from(text, "base64url");
  for (const key of keys.all(use))
    try {
      const decipher = createDecipheriv("aes-256-gcm", Buffer.from(key, "base64url"), bytes.subarray(0, 12));
      decipher.setAuthTag(bytes.subarray(12, 28));
      return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString("utf8");
    } catch {
      // Another key may open it.
    }
  return null;
}

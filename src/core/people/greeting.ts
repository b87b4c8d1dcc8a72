/** One word of letters, as given names are: that much of what a stranger has typed may be said to whoever owns the address. */
const givenName = /^\p{L}[\p{L}\p{M}'’-]{1,19}$/u;

/** How somebody is greeted of whom nobody has shown that the address is theirs: by their given name where it reads like one; null where it does not. */
export function greetingOf(typed: string): string | null {
  const [first = ""] = typed.trim().split(/\s+/);
  return givenName.test(first) ? first : null;
}

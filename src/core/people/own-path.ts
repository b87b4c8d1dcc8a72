const here = "http://own.invalid";

/** An address that came in, as a way within the application: path and query, or null where it leads elsewhere. Read as a browser reads it, which drops tabs and takes backslashes for slashes. */
export function ownPath(address: string | null | undefined): string | null {
  if (!address?.startsWith("/")) return null;
  try {
    const url = new URL(address, here);
    return url.origin === here ? url.pathname.replace(/^\/+/, "/") + url.search : null;
  } catch {
    return null;
  }
}

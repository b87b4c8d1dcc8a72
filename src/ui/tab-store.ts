const memory = new Map<string, string>();

/**
 * What a tab keeps over a reload, in the browser's session storage. In a frame on somebody else's site a
 * browser may refuse even to look at it: then it is kept for as long as the page is open.
 */
export const tabStore = {
  read(key: string): string | null {
    try {
      return sessionStorage.getItem(key);
    } catch {
      return memory.get(key) ?? null;
    }
  },
  write(key: string, value: string): void {
    try {
      sessionStorage.setItem(key, value);
    } catch {
      memory.set(key, value);
    }
  },
  remove(key: string): void {
    try {
      sessionStorage.removeItem(key);
    } catch {
      memory.delete(key);
    }
  },
};

import { tabStore } from "./tab-store";

const shared = globalThis as { sessionStorage?: unknown };
afterEach(() => delete shared.sessionStorage);

describe("what a tab keeps", () => {
  it("is in the browser's storage where there is one", () => {
    const kept = new Map<string, string>();
    shared.sessionStorage = {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value),
      removeItem: (key: string) => kept.delete(key),
    };
    tabStore.write("draft", "where");
    expect([tabStore.read("draft"), kept.get("draft"), tabStore.read("nothing")]).toEqual(["where", "where", null]);
    tabStore.remove("draft");
    expect([tabStore.read("draft"), kept.size]).toEqual([null, 0]);
  });

  it("lasts as long as the page where a browser refuses even to be asked", () => {
    Object.defineProperty(shared, "sessionStorage", {
      configurable: true,
      get: () => {
        throw new Error("Access is denied");
      },
    });
    tabStore.write("draft", "when");
    expect(tabStore.read("draft")).toBe("when");
    tabStore.remove("draft");
    expect(tabStore.read("draft")).toBeNull();
  });
});

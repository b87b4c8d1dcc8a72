import { bodyOf, jsonFrom } from "./body";
import { browserWords } from "./browser-words";
import { clientAddress } from "./client-address";

describe("where a request comes from", () => {
  it("is who is connected, whatever they write down, as long as no proxy is trusted", () => {
    expect(clientAddress("198.51.100.4", "203.0.113.9, 10.0.0.1", 0)).toBe("198.51.100.4");
  });

  it("is whom the last of our own proxies has seen", () => {
    expect(clientAddress("10.0.0.1", "1.2.3.4, 203.0.113.9", 1)).toBe("203.0.113.9");
    expect(clientAddress("10.0.0.1", "1.2.3.4, 203.0.113.9, 10.0.0.2", 2)).toBe("203.0.113.9");
    expect(clientAddress("10.0.0.1", "", 2)).toBe("10.0.0.1");
  });

  it("is one household for all addresses of a /64, and the same for an address written as IPv6", () => {
    expect(clientAddress("2001:db8:1:2::1", "", 0)).toBe(clientAddress("2001:db8:1:2:ffff::9", "", 0));
    expect(clientAddress("2001:db8:1:3::1", "", 0)).not.toBe(clientAddress("2001:db8:1:2::1", "", 0));
    expect(clientAddress("::ffff:198.51.100.4", "", 0)).toBe("198.51.100.4");
    expect(clientAddress("nonsense", "", 0)).toBe("unknown");
  });
});

describe("a body", () => {
  /** Bytes that come in pieces, without saying how many; `read` counts how many were asked for. */
  const stream = (pieces: number, size: number) => {
    let read = 0;
    const body = new ReadableStream({
      pull(controller) {
        if (read === pieces) return controller.close();
        read++;
        controller.enqueue(new Uint8Array(size));
      },
    });
    const request = new Request("http://own.invalid", { method: "POST", body, duplex: "half" } as RequestInit);
    return { request, read: () => read };
  };

  it("is read whole up to the limit", async () => {
    expect((await bodyOf(stream(3, 10).request, 30, "too-large")).length).toBe(30);
  });

  it("is cut off as soon as it is too large, and not read to its end", async () => {
    const { request, read } = stream(1000, 1000);
    await expect(bodyOf(request, 5000, "too-large")).rejects.toMatchObject({ problem: { code: "too-large" } });
    expect(read()).toBeLessThan(10);
  });

  it("that is no JSON is refused in words", () => expect(() => jsonFrom("{")).toThrow(/could not be read/));
});

it("browsers are told apart in words", () => {
  expect(browserWords("Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0")).toBe(
    "Firefox on Linux",
  );
  expect(browserWords(null)).toBe("A browser");
});

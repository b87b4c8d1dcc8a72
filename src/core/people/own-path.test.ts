import fc from "fast-check";
import { ownPath } from "./own-path";

it.each([
  "//evil.example",
  "/\t/evil.example",
  "/\\evil.example",
  "https://evil.example",
  "javascript:alert(1)",
  "/\n//evil.example",
  "",
  null,
])("does not lead elsewhere: %j", (address) => {
  const path = ownPath(address);
  expect(path === null || !path.startsWith("//")).toBe(true);
  if (path !== null) expect(new URL(path, "http://own.invalid").host).toBe("own.invalid");
});

it("keeps ways within the application, with what they ask", () => {
  expect(ownPath("/board?date=2027-03-09&visit=3")).toBe("/board?date=2027-03-09&visit=3");
});

it("whatever comes in, what comes out stays here", () => {
  fc.assert(
    fc.property(fc.string(), (text) => {
      const path = ownPath(`/${text}`);
      return path === null || new URL(path, "http://own.invalid").host === "own.invalid";
    }),
  );
});

import { mkdtempSync, rmSync, writeFileSync } from "node:fs";
import { tmpdir } from "node:os";
import path from "node:path";
import sharp from "sharp";

/** Files that a test chooses in the browser, in a folder that is gone when the tests of the file are over. Answers where each is. */
export function filesForTests(): (name: string, content: string | Buffer) => string {
  const folder = mkdtempSync(path.join(tmpdir(), "hogar-files-"));
  afterAll(() => rmSync(folder, { recursive: true }));
  return (name, content) => {
    const at = path.join(folder, name);
    writeFileSync(at, content);
    return at;
  };
}

/** A picture of one colour. */
export const pixels = (colour: string): Promise<Buffer> =>
  sharp({ create: { width: 300, height: 200, channels: 3, background: colour } })
    .png()
    .toBuffer();

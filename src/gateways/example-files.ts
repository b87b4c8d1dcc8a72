import { existsSync, mkdirSync, readFileSync, writeFileSync } from "node:fs";
import path from "node:path";

interface Example {
  name: string;
  about: string;
}
/** Files to try the import with: in the demo, beside its stand-ins. */
export interface ExampleFiles {
  list: () => Example[];
  read: (name: string) => Buffer | null;
}

const index = "index.json";

export function exampleFiles(folder: string | null): ExampleFiles {
  const list = (): Example[] =>
    folder && existsSync(path.join(folder, index))
      ? (JSON.parse(readFileSync(path.join(folder, index), "utf8")) as Example[])
      : [];
  return {
    list,
    // Only what the index names: a name from outside is no path.
    read: (name) =>
      folder && list().some((file) => file.name === name) ? readFileSync(path.join(folder, name)) : null,
  };
}

export function writeExamples(folder: string, files: readonly (Example & { bytes: Uint8Array })[]): void {
  mkdirSync(folder, { recursive: true });
  for (const { name, bytes } of files) writeFileSync(path.join(folder, name), bytes);
  writeFileSync(path.join(folder, index), JSON.stringify(files.map(({ name, about }) => ({ name, about }))));
}

import type { Module } from "@/kernel/module";
import { viewContext } from "@/kernel/operation";
import { office, smallWorld } from "@demo/small-world";
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from "node:fs";
import path from "node:path";
import ts from "typescript";

/** The example of a subject in docs/architecture.md, as a file in the source, where the aliases of imports hold. */
const folder = mkdtempSync(path.join(__dirname, "example-"));
const file = path.join(folder, "index.ts");
const [, example = ""] = /```ts\n([\s\S]*?)```/.exec(readFileSync("docs/architecture.md", "utf8")) ?? [];

beforeAll(() => writeFileSync(file, example));
afterAll(() => rmSync(folder, { recursive: true }));

describe("the example of a subject in docs/architecture.md", () => {
  it("is as the compiler wants it", () => {
    const config = ts.getParsedCommandLineOfConfigFile("tsconfig.json", {}, ts.sys as never)!;
    const program = ts.createProgram([file], { ...config.options, incremental: false, noEmit: true });
    const source = program.getSourceFile(file)!;
    const problems = [...program.getSyntacticDiagnostics(source), ...program.getSemanticDiagnostics(source)].map(
      ({ messageText }) => ts.flattenDiagnosticMessageText(messageText, "\n"),
    );
    expect([example.length > 0, problems]).toEqual([true, []]);
  });

  it("does what it says", () => {
    const { vansModule } = jest.requireActual<{ vansModule: Module }>(file);
    const { hogar } = smallWorld();
    expect(vansModule.needs![0]!.read(viewContext(hogar, office))[0]!.words).toBe("Wash the van");
  });
});

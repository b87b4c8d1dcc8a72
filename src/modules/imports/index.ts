import { defineModule } from "@/kernel/module";
import { importJobs } from "./jobs";
import {
  addImportRows,
  beginImport,
  changeImportRow,
  decideImportRows,
  dropImport,
  stopImport,
  takeImport,
  undoImport,
} from "./operations/imports";
import { pruneImports } from "./pruning";
import { importRows, imports, oneImport } from "./views/imports";

export const importsModule = defineModule({
  name: "imports",
  owns: ["imports", "import_rows", "import_keys"],
  operations: {
    "add-import-rows": addImportRows,
    "begin-import": beginImport,
    "change-import-row": changeImportRow,
    "decide-import-rows": decideImportRows,
    "drop-import": dropImport,
    "stop-import": stopImport,
    "take-import": takeImport,
    "undo-import": undoImport,
  },
  views: {
    import: oneImport,
    "import-rows": importRows,
    imports,
  },
  jobs: importJobs,
  prune: pruneImports,
});

"use client";
import { ask, type ViewInput } from "@/api/client";
import { actorInWords, operationWords } from "@/core/records/changes";
import { download } from "@/ui/download";
import Button from "@mui/material/Button";
import { useSnackbar } from "notistack";
import { useRef, useState } from "react";

const pageSize = 200;
/** Rows of a file that a spreadsheet still opens. */
const mostRows = 50_000;

/** All that the filters find, as a file: a row for each field that was changed. It is read page by page, and can be stopped. */
export function SaveCsv({ asked }: { asked: ViewInput<"who-did-what"> }) {
  const { enqueueSnackbar } = useSnackbar();
  const [done, setDone] = useState<number | null>(null);
  const stopped = useRef(false);
  const save = async () => {
    stopped.current = false;
    setDone(0);
    const rows: string[][] = [];
    for (let page = 0, left = true; left && rows.length < mostRows && !stopped.current; page++) {
      const result = await ask("who-did-what", { ...asked, page, size: pageSize });
      if (!result.ok) {
        enqueueSnackbar(result.problem.sentence, { variant: "error" });
        return setDone(null);
      }
      for (const entry of result.value.rows) {
        const head = [new Date(entry.at).toISOString(), actorInWords(entry.actor), operationWords(entry.operation)];
        if (entry.changes.length === 0) rows.push([...head, "", "", "", ""]);
        for (const c of entry.changes) rows.push([...head, c.of, c.field, c.before, c.after]);
      }
      left = result.value.count > (page + 1) * pageSize;
      setDone(Math.min(100, Math.round(((page + 1) * pageSize * 100) / Math.max(1, result.value.count))));
    }
    setDone(null);
    if (stopped.current) return;
    const { csvOf } = await import("@/core/csv");
    const fields = ["when", "who", "what", "of", "field", "before", "after"];
    download("who-did-what.csv", "text/csv", csvOf(fields, rows));
  };
  return done === null ? (
    <Button variant="outlined" onClick={() => void save()}>
      Save as CSV
    </Button>
  ) : (
    <Button variant="outlined" onClick={() => (stopped.current = true)}>
      {done}% · Stop
    </Button>
  );
}

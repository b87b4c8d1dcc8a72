"use client";
import { ask, type ViewInput, type ViewOutput } from "@/api/client";
import { moneyTyped } from "@/core/money/amounts";
import { download } from "@/ui/download";
import Button from "@mui/material/Button";
import { useSnackbar } from "notistack";
import { useRef, useState } from "react";

type ListName = "invoices" | "payments" | "credits" | "payouts" | "message-log";
type Row<N extends ListName> = ViewOutput<N>["rows"][number];

const pageSize = 200;

/** What is on the screen as CSV, whole: read page by page, with progress, and it can be stopped. */
export function ExportList<N extends ListName>({
  name,
  asked,
  columns,
}: {
  name: N;
  /** Which rows, in which order. */
  asked: Omit<ViewInput<N>, "page" | "size">;
  /** A column each: its name, and what stands in it; amounts in minor units as `money`. */
  columns: readonly { words: string; of: (row: Row<N>) => string | number | null; money?: true }[];
}) {
  const { enqueueSnackbar } = useSnackbar();
  const [share, setShare] = useState<number | null>(null);
  const stopped = useRef(false);
  const save = async () => {
    stopped.current = false;
    setShare(0);
    const rows: Row<N>[] = [];
    let currency = "";
    for (let page = 0, left = true; left; page++) {
      const result = await ask(name, { ...asked, page, size: pageSize } as unknown as ViewInput<N>);
      if (stopped.current || !result.ok) {
        setShare(null);
        if (!result.ok) enqueueSnackbar(result.problem.sentence, { variant: "error" });
        return;
      }
      currency = "currency" in result.value ? result.value.currency : "";
      rows.push(...(result.value.rows as Row<N>[]));
      left = rows.length < result.value.count && result.value.rows.length > 0;
      setShare(Math.round((rows.length * 100) / Math.max(1, result.value.count)));
    }
    const { csvOf } = await import("@/core/csv");
    const cell = (value: string | number | null, money?: true) =>
      value === null ? "" : money ? moneyTyped(Number(value), currency) : value;
    const data = rows.map((row) => columns.map(({ of, money }) => cell(of(row), money)));
    download(
      `${name}.csv`,
      "text/csv",
      csvOf(
        columns.map(({ words }) => words),
        data,
      ),
    );
    setShare(null);
  };
  return share === null ? (
    <Button onClick={() => void save()}>Export CSV</Button>
  ) : (
    <Button onClick={() => (stopped.current = true)}>{share}% · Stop</Button>
  );
}

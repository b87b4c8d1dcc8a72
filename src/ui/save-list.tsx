"use client";
import { ask, type ViewInput } from "@/api/client";
import { moneyTyped } from "@/core/money/amounts";
import { download } from "./download";
import type { PagedView } from "./first-page";
import Button from "@mui/material/Button";
import { useSnackbar } from "notistack";
import { useRef, useState } from "react";

/** A column of a file: its name, and what stands in it; amounts in minor units as `money`. */
export interface FileColumn<R> {
  words: string;
  of: (row: R) => string | number | null;
  money?: true;
}

const pageSize = 200;

/** All that a list finds as CSV, read page by page, with progress; it can be stopped. */
export function SaveList<N extends PagedView, R>({
  name,
  asked,
  columns,
}: {
  name: N;
  /** Which rows, in which order. */
  asked: ViewInput<N>;
  columns: readonly FileColumn<R>[];
}) {
  const { enqueueSnackbar } = useSnackbar();
  const [share, setShare] = useState<number | null>(null);
  const stopped = useRef(false);
  const save = async () => {
    stopped.current = false;
    setShare(0);
    const rows: R[] = [];
    let currency = "";
    for (let page = 0, left = true; left; page++) {
      const result = await ask(name, { ...(asked as object), page, size: pageSize } as unknown as ViewInput<N>);
      if (stopped.current || !result.ok) {
        setShare(null);
        if (!result.ok) enqueueSnackbar(result.problem.sentence, { variant: "error" });
        return;
      }
      const found = result.value as unknown as { rows: R[]; count: number; currency?: string };
      currency = found.currency ?? "";
      rows.push(...found.rows);
      left = rows.length < found.count && found.rows.length > 0;
      setShare(Math.round((rows.length * 100) / Math.max(1, found.count)));
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

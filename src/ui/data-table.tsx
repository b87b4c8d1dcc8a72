"use client";
import Skeleton from "@mui/material/Skeleton";
import type { DataGridProps, GridValidRowModel } from "@mui/x-data-grid";
import dynamic from "next/dynamic";
import type { Grid as GridType } from "./grid";

// The grid is large: the page is there before it.
const Grid = dynamic(() => import("./grid").then((loaded) => loaded.Grid), {
  loading: () => <Skeleton variant="rectangular" height={320} />,
}) as typeof GridType;

/** A table edge to edge. Rows open with a click or Enter. */
export const DataTable = <R extends GridValidRowModel>(props: DataGridProps<R> & { onOpen?: (row: R) => void }) => (
  <Grid<R> {...props} />
);

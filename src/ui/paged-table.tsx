"use client";
import type { ViewInput } from "@/api/client";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import type { DataGridProps, GridColDef, GridSortModel, GridValidRowModel } from "@mui/x-data-grid";
import { type ReactNode, useDeferredValue, useMemo, useState } from "react";
import { DataTable } from "./data-table";
import type { firstPage, PagedView, Sort } from "./first-page";
import { useLive } from "./live";
import { type FileColumn, SaveList } from "./save-list";

/** A long list: paged, sorted and searched by the database, so that it is as quick with a hundred thousand rows as with ten. */
export function PagedTable<N extends PagedView, R extends GridValidRowModel>({
  name,
  first,
  more,
  columns,
  searchLabel,
  beside,
  empty,
  everyMs,
  onSearch,
  file,
  ...table
}: {
  name: N;
  first: ReturnType<typeof firstPage<N>>;
  /** What is asked beside the page, such as which rows. */
  more?: Partial<ViewInput<N>>;
  /** Columns whose field is no sort of the view cannot be sorted. */
  columns: GridColDef<R>[];
  /** Null where nothing is searched. */
  searchLabel: string | null;
  beside?: ReactNode;
  onOpen?: (row: R) => void;
  empty: string;
  /** What is looked for, where somebody else wants to know. */
  onSearch?: (search: string) => void;
  /** The columns of a file of all that is found, in the same order, where it can be saved as one. */
  file?: readonly FileColumn<R>[];
  /** How often it is read again by itself. */
  everyMs?: number;
} & Pick<
  DataGridProps<R>,
  | "columnVisibilityModel"
  | "checkboxSelection"
  | "rowSelectionModel"
  | "onRowSelectionModelChange"
  | "isRowSelectable"
  | "getRowId"
  | "rowHeight"
>) {
  const [asked, setAsked] = useState(first);
  // Other rows begin on their first page.
  const rows = JSON.stringify(more);
  const [rowsShown, setRowsShown] = useState(rows);
  if (rows !== rowsShown) {
    setRowsShown(rows);
    setAsked({ ...asked, page: 0 });
  }
  const search = useDeferredValue(asked.search);
  const { data, problem, loading } = useLive(name, { ...asked, ...more, search } as unknown as ViewInput<N>, everyMs);
  const page = data as { rows: R[]; count: number } | null;
  const { sort, descending, size } = asked;
  // The same objects as long as they say the same: the grid takes others for a change of its own.
  const sortModel = useMemo(
    (): GridSortModel => [{ field: sort as string, sort: descending ? "desc" : "asc" }],
    [sort, descending],
  );
  const paginationModel = useMemo(() => ({ page: asked.page, pageSize: size }), [asked.page, size]);
  const putInOrder = ([by]: GridSortModel) => {
    const falling = by?.sort === "desc";
    if (by && (by.field !== sort || falling !== descending))
      setAsked({ ...asked, sort: by.field as Sort<N>, descending: falling, page: 0 });
  };
  return (
    <>
      <Box sx={{ px: 6, pb: 3, display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap" }}>
        {beside}
        {file && <SaveList<N, R> name={name} asked={{ ...asked, ...more } as unknown as ViewInput<N>} columns={file} />}
        {searchLabel && (
          <TextField
            size="small"
            label={searchLabel}
            value={asked.search}
            onChange={(e) => {
              setAsked({ ...asked, search: e.target.value, page: 0 });
              onSearch?.(e.target.value);
            }}
            sx={{ width: 280 }}
          />
        )}
      </Box>
      <Box sx={{ flex: 1, minHeight: 300 }}>
        <DataTable<R>
          rows={page?.rows ?? []}
          rowCount={page?.count ?? 0}
          columns={columns}
          loading={loading && !page}
          paginationMode="server"
          sortingMode="server"
          sortingOrder={["asc", "desc"]}
          paginationModel={paginationModel}
          onPaginationModelChange={({ page: to, pageSize }) => setAsked({ ...asked, page: to, size: pageSize })}
          sortModel={sortModel}
          onSortModelChange={putInOrder}
          localeText={{
            noRowsLabel: problem?.sentence ?? (asked.search ? "Nothing is found. Try fewer letters." : empty),
          }}
          {...table}
        />
      </Box>
    </>
  );
}

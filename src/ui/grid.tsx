"use client";
import { DataGrid, type DataGridProps, type GridValidRowModel } from "@mui/x-data-grid";
import { ink } from "./palette";

/** A table edge to edge: thin lines, no boxes. Rows open with a click or Enter. */
export function Grid<R extends GridValidRowModel>({
  onOpen,
  ...props
}: DataGridProps<R> & { onOpen?: (row: R) => void }) {
  return (
    <DataGrid<R>
      density="compact"
      disableRowSelectionOnClick
      disableColumnMenu
      pageSizeOptions={[25, 50, 100]}
      onRowClick={(params) => onOpen?.(params.row)}
      onCellKeyDown={(params, event) => event.key === "Enter" && onOpen?.(params.row)}
      {...props}
      initialState={{ pagination: { paginationModel: { pageSize: 50 } }, ...props.initialState }}
      sx={{
        border: 0,
        borderTop: `1px solid ${ink.line}`,
        "--DataGrid-t-header-background-base": ink.plaster,
        fontSize: 14.5,
        "& .MuiDataGrid-row": { cursor: onOpen ? "pointer" : "default" },
        "& .MuiDataGrid-columnHeaderTitle": { fontWeight: 650 },
        ...((props.sx as object) ?? {}),
      }}
    />
  );
}

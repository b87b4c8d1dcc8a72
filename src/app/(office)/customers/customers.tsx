"use client";
import { type CustomerFilter, everybody, sameFilter } from "@/core/customers/filter";
import { moneyWords } from "@/core/money/amounts";
import { dayShort } from "@/core/time/words";
import { firstPage } from "@/ui/first-page";
import { useShown } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Chip from "@mui/material/Chip";
import type { GridColDef } from "@mui/x-data-grid";
import { useRouter } from "next/navigation";
import { useMemo, useState } from "react";
import { useOffice } from "../office-context";
import { Top } from "../top";
import type { CustomerRow } from "./data";
import { FilterBar } from "./filter-bar";
import { ImportAndExport } from "./import-and-export";
import { PossibleDuplicates } from "./possible-duplicates";

const first = firstPage<"customers">("name");

const day = (value: string | null): string => (value ? dayShort(value) : "");

const columnsOf = (currency: string): (GridColDef<CustomerRow> & { needs?: "contacts.see" | "money.see" })[] => [
  { field: "name", headerName: "Name", flex: 1.2, minWidth: 140 },
  { field: "phone", headerName: "Phone", width: 150, needs: "contacts.see" },
  { field: "mail", headerName: "Email", flex: 1.2, minWidth: 130, needs: "contacts.see" },
  { field: "place", headerName: "Address", sortable: false, flex: 1.2, minWidth: 140 },
  { field: "zone", headerName: "Zone", width: 110, sortable: false },
  {
    field: "tags",
    headerName: "Tags",
    sortable: false,
    width: 130,
    renderCell: ({ row }) =>
      row.tags.map((tag) => <Chip key={tag} label={tag} size="small" variant="outlined" sx={{ mr: 0.5 }} />),
  },
  { field: "lastVisit", headerName: "Last visit", width: 100, valueFormatter: day },
  { field: "nextVisit", headerName: "Next visit", width: 100, valueFormatter: day },
  {
    field: "openMinor",
    headerName: "Open",
    width: 100,
    align: "right",
    headerAlign: "right",
    needs: "money.see",
    valueFormatter: (value: number | null) => (value ? moneyWords(value, currency) : ""),
  },
];

/** The customers: those of a view or a filter, looked for by any part of what is known of them. */
export function Customers({ begin }: { begin: CustomerFilter }) {
  const router = useRouter();
  const [filter, setFilter] = useState(begin);
  const [search, setSearch] = useState("");
  const { count, currency } = useShown("customers", { ...first, filter: begin });
  const {
    person: { permissions },
    openNewCustomer,
  } = useOffice();
  const mayMerge = permissions.includes("board.change") && permissions.includes("visits.all");
  const columns = useMemo(
    () => columnsOf(currency).filter(({ needs }) => !needs || permissions.includes(needs)),
    [currency, permissions],
  );
  return (
    <>
      <Top
        title="Customers"
        sum={sameFilter(begin, everybody) ? `${count} ${count === 1 ? "customer" : "customers"}` : ""}
        action={
          <Box sx={{ display: "flex", gap: 2, flex: "none" }}>
            <ImportAndExport filter={filter} search={search} />
            {permissions.includes("customers.change") && (
              <Button variant="contained" onClick={openNewCustomer} title="Key: N">
                New customer
              </Button>
            )}
          </Box>
        }
      />
      <Box sx={{ flex: 1, minWidth: 0, height: "calc(100dvh - 72px)", display: "flex", flexDirection: "column" }}>
        {mayMerge && <PossibleDuplicates />}
        <PagedTable<"customers", CustomerRow>
          name="customers"
          first={first}
          more={{ filter }}
          columns={columns}
          searchLabel="Search customers"
          onSearch={setSearch}
          beside={<FilterBar filter={filter} onFilter={setFilter} />}
          onOpen={(row) => router.push(`/customers/${row.id}`)}
          empty={
            sameFilter(filter, everybody)
              ? "Customers appear here with their first booking, when you make them, or when you import them."
              : "Nobody is in this view right now."
          }
        />
      </Box>
    </>
  );
}

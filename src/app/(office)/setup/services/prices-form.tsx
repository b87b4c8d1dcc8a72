"use client";
import { changePrice, type RoundingName, roundingNamed, roundings } from "@/core/catalogue/prices";
import { moneyWords } from "@/core/money/amounts";
import { DataTable } from "@/ui/data-table";
import { FormFrame } from "@/ui/form-frame";
import { Columns, SignedWholeField } from "@/ui/form-parts";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { GridColDef } from "@mui/x-data-grid";
import { useState } from "react";
import type { SetupData } from "../data";

type Service = SetupData["services"][number];

/** Many prices up or down at once: what they are, what they would be, and the way back. */
export function PricesForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const [percent, setPercent] = useState(5);
  const [rounding, setRounding] = useState<RoundingName>("1");
  const [chosen, setChosen] = useState(() => new Set(data.services.map((s) => s.id)));
  const { send, busy, problem } = useChange("change-prices");
  const { send: putBack } = useChange("set-prices", { then: () => saved() });
  const sayWithUndo = useUndo();
  const share = Number.isFinite(percent) ? percent * 100 : 0;
  const next = (priceMinor: number) => changePrice(priceMinor, share, roundingNamed(rounding, data.currency));
  const amount = (minor: number) => moneyWords(minor, data.currency);
  const columns: GridColDef<Service>[] = [
    { field: "name", headerName: "Service", flex: 1, minWidth: 200 },
    { field: "category", headerName: "Category", width: 150 },
    {
      field: "priceMinor",
      headerName: "Price now",
      width: 120,
      align: "right",
      headerAlign: "right",
      valueFormatter: (minor: number) => amount(minor),
    },
    {
      field: "next",
      headerName: "New price",
      width: 120,
      align: "right",
      headerAlign: "right",
      sortable: false,
      renderCell: ({ row }) => (chosen.has(row.id) ? <b>{amount(next(row.priceMinor))}</b> : "as it is"),
    },
  ];

  const change = async () => {
    const done = await send({ serviceIds: [...chosen], basisPoints: share, rounding });
    if (!done) return;
    sayWithUndo(`${chosen.size} ${chosen.size === 1 ? "price is" : "prices are"} changed`, () =>
      putBack({ prices: done.value.before }),
    );
    saved();
  };
  return (
    <FormFrame
      title="Prices of many services"
      note="For new bookings. What was booked keeps its price."
      problem={problem}
      busy={busy || chosen.size === 0}
      save="Change prices"
      onSave={() => void change()}
    >
      <Columns>
        <SignedWholeField label="Change, %" value={percent} onValue={setPercent} helperText="With a minus: down" />
        <TextField
          select
          label="Rounded to"
          value={rounding}
          onChange={(e) => setRounding(e.target.value as RoundingName)}
        >
          {roundings.map((name) => (
            <MenuItem key={name} value={name}>
              {name === "ending in 9" ? name : `${name} ${data.currency}`}
            </MenuItem>
          ))}
        </TextField>
      </Columns>
      <DataTable<Service>
        rows={data.services}
        columns={columns}
        checkboxSelection
        rowSelectionModel={{ type: "include", ids: chosen }}
        onRowSelectionModelChange={({ type, ids }) =>
          setChosen(
            new Set(
              type === "include" ? ([...ids] as number[]) : data.services.map((s) => s.id).filter((id) => !ids.has(id)),
            ),
          )
        }
        showToolbar
        sx={{ border: 0 }}
      />
    </FormFrame>
  );
}

"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { useChange } from "@/ui/use-change";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useSnackbar } from "notistack";
import { useState } from "react";

/** A technician is given all of their tips, in cash or with the pay. */
export function PayOutTips({
  tips: { technicianId, technician, minor },
  currency,
}: {
  tips: ViewOutput<"money-overview">["tips"][number];
  currency: string;
}) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const { send, busy } = useChange("pay-out-tips");
  const { enqueueSnackbar } = useSnackbar();
  const pay = async (method: "cash" | "bank") => {
    setAnchor(null);
    if (await send({ technicianId, method, amountMinor: minor }))
      enqueueSnackbar(`${moneyWords(minor, currency)} to ${technician ?? "everybody"} is in the books`, {
        variant: "success",
      });
  };
  return (
    <>
      <Button variant="outlined" disabled={busy} onClick={(e) => setAnchor(e.currentTarget)}>
        Paid out…
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        <MenuItem onClick={() => void pay("cash")}>In cash, from the till</MenuItem>
        <MenuItem onClick={() => void pay("bank")}>By transfer, with the pay</MenuItem>
      </Menu>
    </>
  );
}

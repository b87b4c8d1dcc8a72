"use client";
import { ask } from "@/api/client";
import { download } from "@/ui/download";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import MoreVert from "@mui/icons-material/MoreVert";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { useOffice } from "../office-context";
import type { Customer } from "./data";
import { Erase } from "./erase";
import { MergeWith } from "./merge-with";
import { saveVCard } from "./save-list";

/** What is done to a customer as a whole. */
export function CustomerMenu({ customer }: { customer: Customer }) {
  const { permissions } = useOffice().person;
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [doing, setDoing] = useState<"merge" | "erase" | null>(null);
  const archive = useChange("archive-customer");
  const undoable = useUndo();
  const { enqueueSnackbar } = useSnackbar();
  const seesAll = permissions.includes("visits.all");
  const put = async (archived: boolean) => {
    setAnchor(null);
    if ((await archive.send({ customerId: customer.id, archived })) && archived)
      undoable(`${customer.name} is archived`, () => archive.send({ customerId: customer.id, archived: false }));
  };
  const hand = async () => {
    setAnchor(null);
    const held = await ask("customer-data", { customerId: customer.id });
    if (!held.ok) return void enqueueSnackbar(held.problem.sentence, { variant: "error" });
    download(`${customer.name}.json`, "application/json", JSON.stringify(held.value, null, 2));
  };
  const begin = (what: "merge" | "erase") => {
    setAnchor(null);
    setDoing(what);
  };
  return (
    <>
      <IconButton aria-label="More" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        <MoreVert />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {permissions.includes("contacts.see") && (
          <MenuItem
            onClick={() => {
              setAnchor(null);
              void saveVCard(customer);
            }}
          >
            Export vCard
          </MenuItem>
        )}
        {seesAll && permissions.includes("customers.change") && (
          <MenuItem onClick={() => void hand()}>Export all that we hold</MenuItem>
        )}
        <MenuItem disabled={archive.busy} onClick={() => void put(!customer.archived)}>
          {customer.archived ? "Bring back" : "Archive"}
        </MenuItem>
        {permissions.includes("board.change") && seesAll && (
          <MenuItem onClick={() => begin("merge")}>Merge with another customer…</MenuItem>
        )}
        {seesAll && (
          <MenuItem onClick={() => begin("erase")} sx={{ color: "error.main" }}>
            Erase on request…
          </MenuItem>
        )}
      </Menu>
      {doing === "merge" && <MergeWith customer={customer} onClose={() => setDoing(null)} />}
      {doing === "erase" && <Erase customer={customer} onClose={() => setDoing(null)} />}
    </>
  );
}

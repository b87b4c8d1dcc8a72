"use client";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import MoreVert from "@mui/icons-material/MoreVert";
import IconButton from "@mui/material/IconButton";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
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
  const seesAll = permissions.includes("visits.all");
  const put = async (archived: boolean) => {
    setAnchor(null);
    if ((await archive.send({ customerId: customer.id, archived })) && archived)
      undoable(`${customer.name} is archived`, () => archive.send({ customerId: customer.id, archived: false }));
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

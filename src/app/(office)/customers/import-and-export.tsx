"use client";
import type { CustomerFilter } from "@/core/customers/filter";
import Button from "@mui/material/Button";
import Menu from "@mui/material/Menu";
import MenuItem from "@mui/material/MenuItem";
import { useRouter } from "next/navigation";
import { useSnackbar } from "notistack";
import { useRef, useState } from "react";
import { useOffice } from "../office-context";
import { saveList } from "./save-list";

/** In and out: a file of customers, or what is on the screen as one. */
export function ImportAndExport({ filter, search }: { filter: CustomerFilter; search: string }) {
  const router = useRouter();
  const { permissions } = useOffice().person;
  const { enqueueSnackbar } = useSnackbar();
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const [share, setShare] = useState<number | null>(null);
  const stopped = useRef(false);
  const exports = permissions.includes("contacts.see");
  const imports = permissions.includes("customers.change") && permissions.includes("visits.all");
  if (!exports && !imports) return null;
  const save = async (kind: "csv" | "vcf") => {
    setAnchor(null);
    stopped.current = false;
    setShare(0);
    const problem = await saveList({ filter, search }, kind, { onShare: setShare, isStopped: () => stopped.current });
    setShare(null);
    if (problem) enqueueSnackbar(problem, { variant: "error" });
  };
  if (share !== null)
    return (
      <Button variant="outlined" onClick={() => (stopped.current = true)}>
        {share}% · Stop
      </Button>
    );
  return (
    <>
      <Button variant="outlined" aria-haspopup="menu" onClick={(e) => setAnchor(e.currentTarget)}>
        Import and export
      </Button>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={() => setAnchor(null)}>
        {imports && <MenuItem onClick={() => router.push("/import?kind=customers")}>Import a file…</MenuItem>}
        {exports && <MenuItem onClick={() => void save("csv")}>Export CSV</MenuItem>}
        {exports && <MenuItem onClick={() => void save("vcf")}>Export vCard</MenuItem>}
      </Menu>
    </>
  );
}

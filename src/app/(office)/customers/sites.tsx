"use client";
import { useChange } from "@/ui/use-change";
import { FormDrawer } from "@/ui/form-drawer";
import { FormFrame } from "@/ui/form-frame";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import { useUndo } from "@/ui/use-undo";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import dynamic from "next/dynamic";
import { useState } from "react";
import type { Customer, Site } from "./data";
import { noSite, SiteFields, type SiteDraft } from "./site-fields";

// Leaflet needs a window.
const SitesMap = dynamic(() => import("./sites-map"), { ssr: false });

/** Their sites, on the map and in words. */
export function Sites({ customer, mayChange }: { customer: Customer; mayChange: boolean }) {
  const [open, setOpen] = useState<Site | "new" | null>(null);
  const { data: town } = useLive("town-map", customer.erased ? null : {});
  const inUse = customer.sites.filter((site) => site.archived_at === null);
  return (
    <Box component="section" aria-label="Sites" sx={{ mt: 0 }}>
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", lg: "1fr 1fr" }, gap: 5 }}>
        <Box>
          {customer.sites.map((site, i) => (
            <SiteInWords
              key={site.id}
              site={site}
              number={inUse.length > 1 ? i + 1 : null}
              onChange={mayChange ? () => setOpen(site) : undefined}
            />
          ))}
          {customer.sites.length === 0 && <Box sx={{ color: ink.ash, mb: 2 }}>No site yet: where should we go?</Box>}
          {mayChange && (
            <Button size="small" onClick={() => setOpen("new")}>
              Add a site
            </Button>
          )}
        </Box>
        {town && inUse.length > 0 && <SitesMap {...town} sites={inUse} />}
      </Box>
      <FormDrawer open={open !== null} label="Site" onClose={() => setOpen(null)}>
        {open && <SiteForm customer={customer} site={open === "new" ? null : open} done={() => setOpen(null)} />}
      </FormDrawer>
    </Box>
  );
}

function SiteInWords({ site, number, onChange }: { site: Site; number: number | null; onChange?: () => void }) {
  const archived = site.archived_at !== null;
  return (
    <Box
      sx={{ display: "flex", gap: 3, borderTop: `1px solid ${ink.line}`, py: 2, color: archived ? ink.ash : ink.ink }}
    >
      {number !== null && !archived && (
        <Box aria-hidden sx={{ width: 20, flex: "none", fontWeight: 650, color: ink.pine }}>
          {number}
        </Box>
      )}
      <Box sx={{ flex: 1, minWidth: 0 }}>
        <Box sx={{ fontWeight: 650 }}>
          {site.name && `${site.name}: `}
          {site.line}
          {site.postcode && `, ${site.postcode}`}
        </Box>
        <Box sx={{ fontSize: 14, color: ink.ash }}>
          {[site.zone ?? "outside our zones", archived ? "archived" : "", visitsWords(site.visits)]
            .filter(Boolean)
            .join(" · ")}
        </Box>
        {site.access && <Box sx={{ fontSize: 14.5, mt: 0.5 }}>Getting in: {site.access}</Box>}
        {site.parking && <Box sx={{ fontSize: 14.5 }}>Parking: {site.parking}</Box>}
      </Box>
      {onChange && (
        <Button size="small" onClick={onChange} aria-label={`Change ${site.line}`} sx={{ alignSelf: "start" }}>
          Change
        </Button>
      )}
    </Box>
  );
}

const visitsWords = (n: number): string => (n === 0 ? "" : n === 1 ? "1 visit" : `${n} visits`);

function SiteForm({ customer, site, done }: { customer: Customer; site: Site | null; done: () => void }) {
  const undoable = useUndo();
  const archive = useChange("archive-site");
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-site",
    of: `site ${site?.id ?? `new of ${customer.id}`}`,
    from: site ? ({ address: null, name: site.name, access: site.access, parking: site.parking } as SiteDraft) : noSite,
    input: ({ address, ...details }: SiteDraft) => ({
      id: site?.id ?? null,
      customerId: customer.id,
      addressId: address?.id ?? null,
      ...details,
    }),
    name: () => site?.line ?? "The site",
    saved: done,
  });
  const put = async (archived: boolean) => {
    if (!site || !(await archive.send({ siteId: site.id, archived }))) return;
    done();
    if (archived) undoable(`${site.line} is archived`, () => archive.send({ siteId: site.id, archived: false }));
  };
  return (
    <FormFrame
      title={site ? site.line : "New site"}
      key={round}
      {...frame}
      more={
        site && (
          <Button disabled={archive.busy} onClick={() => void put(site.archived_at === null)}>
            {site.archived_at === null ? "Archive" : "Bring back"}
          </Button>
        )
      }
    >
      <SiteFields draft={draft} set={set} wrong={wrong} label={site ? "Another address" : "Address"} />
    </FormFrame>
  );
}

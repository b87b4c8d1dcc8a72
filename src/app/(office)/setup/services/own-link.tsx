"use client";
import { Field } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { useCopy } from "@/ui/use-copy";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import type { ServiceDraft } from "../data";

/** The service's own address at the front door, for a mail, a poster or a site. */
export function OwnLink({
  draft,
  set,
  wrong,
}: {
  draft: ServiceDraft;
  set: (change: Partial<ServiceDraft>) => void;
  wrong: (path: string) => string | undefined;
}) {
  const copy = useCopy();
  const address = draft.slug ? `/book?service=${draft.slug}` : null;
  return (
    <Box sx={{ display: "flex", gap: 3, alignItems: "flex-start" }}>
      <Field
        label="Its own link ends in"
        value={draft.slug ?? ""}
        onChange={(e) => set({ slug: e.target.value || null })}
        wrong={wrong("/slug")}
        helperText={address ?? (draft.id === null ? "Made of its name when it is saved" : "None")}
        sx={{ maxWidth: 320 }}
      />
      {address && (
        <Button
          size="small"
          onClick={() => copy(`${window.location.origin}${address}`, "The link is copied")}
          sx={{ height: 40 }}
        >
          Copy the link
        </Button>
      )}
      {address && (
        <Button size="small" href={address} target="_blank" sx={{ height: 40, color: ink.lake }}>
          Open it
        </Button>
      )}
    </Box>
  );
}

"use client";
import { AddressField, type FoundAddress } from "@/ui/address-field";
import { Field } from "@/ui/form-parts";
import { type Typed, TypedAddress } from "@/ui/typed-address";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useState } from "react";

export interface SiteDraft {
  address: FoundAddress | null;
  name: string;
  access: string;
  parking: string;
}
export const noSite: SiteDraft = { address: null, name: "", access: "", parking: "" };

/** Where work is done, and what has to be known to get in. */
export function SiteFields({
  draft,
  set,
  wrong,
  label = "Address",
}: {
  draft: SiteDraft;
  set: (change: Partial<SiteDraft>) => void;
  wrong: (pointer: string) => string | undefined;
  label?: string;
}) {
  const [typed, setTyped] = useState<Typed | null>(null);
  const note = (name: "name" | "access" | "parking", label: string, helperText: string) => (
    <Field
      label={label}
      value={draft[name]}
      onChange={(e) => set({ [name]: e.target.value })}
      wrong={wrong(`/${name}`)}
      helperText={helperText}
    />
  );
  return (
    <>
      <Box>
        <AddressField
          key={draft.address?.id ?? "none"}
          label={label}
          value={draft.address}
          onValue={(address) => set({ address })}
          wrong={wrong("/addressId")}
        />
        {!draft.address && !typed && (
          <Button size="small" onClick={() => setTyped({ line: "", postcode: "" })} sx={{ mt: 1 }}>
            It is not in the list
          </Button>
        )}
        {!draft.address && typed && (
          <TypedAddress
            typed={typed}
            onType={setTyped}
            onAddress={(address) => set({ address })}
            label="The address in full"
            size="small"
          />
        )}
      </Box>
      {note("name", "What they call it", "Such as: the mill, or flat 3")}
      {note("access", "How to get in", "Key, dog, code at the gate")}
      {note("parking", "Parking", "Where, and until when")}
    </>
  );
}

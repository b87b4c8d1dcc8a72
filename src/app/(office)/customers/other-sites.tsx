"use client";
import type { OperationInput } from "@/api/client";
import { DateField } from "@/ui/date-field";
import { TimeField } from "@/ui/form-parts";
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import Stack from "@mui/material/Stack";

export type AtSite = NonNullable<OperationInput<"agree-repeat">["otherSites"]>[number];

interface OtherSitesProps {
  sites: readonly { id: number; line: string }[];
  /** The first of them begins so; each further one a window later. */
  begin: Omit<AtSite, "siteId">;
  value: AtSite[];
  onValue: (sites: AtSite[]) => void;
  wrong: (pointer: string) => string | undefined;
}

/** Other sites of the same agreement: all on one day in the windows one after the other, or each with a first day of its own. */
export function OtherSites({ sites, begin, value, onValue, wrong }: OtherSitesProps) {
  const length = begin.toMinute - begin.fromMinute;
  const add = (siteId: number) => {
    const fromMinute = Math.min(begin.fromMinute + value.length * length, 1440 - length);
    onValue([...value, { siteId, from: begin.from, fromMinute, toMinute: fromMinute + length }]);
  };
  return (
    <Box component="fieldset" sx={{ border: 0, p: 0, m: 0 }}>
      <Box component="legend" sx={{ fontWeight: 650 }}>
        Other sites of the same agreement
      </Box>
      {sites.map(({ id, line }) => {
        const at = value.findIndex(({ siteId }) => siteId === id);
        const site = value[at];
        const set = (change: Partial<AtSite>) =>
          onValue(value.map((one) => (one.siteId === id ? { ...one, ...change } : one)));
        return (
          <Box key={id}>
            <FormControlLabel
              control={
                <Checkbox
                  checked={site !== undefined}
                  onChange={(e) => (e.target.checked ? add(id) : onValue(value.filter(({ siteId }) => siteId !== id)))}
                />
              }
              label={line}
            />
            {site && (
              <Stack direction="row" spacing={2} sx={{ pl: 4, pb: 2 }}>
                <DateField
                  label="First from"
                  value={site.from}
                  onValue={(from) => from && set({ from })}
                  wrong={wrong(`/otherSites/${at}/from`)}
                />
                <TimeField label="Window from" value={site.fromMinute} onValue={(fromMinute) => set({ fromMinute })} />
                <TimeField
                  label="until"
                  value={site.toMinute}
                  onValue={(toMinute) => set({ toMinute })}
                  wrong={wrong(`/otherSites/${at}/toMinute`)}
                />
              </Stack>
            )}
          </Box>
        );
      })}
    </Box>
  );
}

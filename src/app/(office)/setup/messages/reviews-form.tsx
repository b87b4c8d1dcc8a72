"use client";
import type { ViewOutput } from "@/api/client";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, WholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import DeleteOutlined from "@mui/icons-material/DeleteOutlined";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Skeleton from "@mui/material/Skeleton";

type Setup = ViewOutput<"review-setup">;

/** When customers are asked how it was, how often, and where else they may write. */
export function ReviewsForm() {
  const { data } = useLive("review-setup", {});
  return data ? <Form setup={data} /> : <Skeleton variant="rounded" height={320} />;
}

const whenWords: Record<Setup["when"], string> = {
  never: "Nobody is asked",
  done: "After the work is done",
  paid: "After it is done and paid",
};

function Form({ setup }: { setup: Setup }) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-review-rules",
    of: "reviews",
    from: setup,
    input: (d: Setup) => d,
    name: () => "Reviews",
    saved: () => {},
  });
  const { places } = draft;
  const change = (i: number, part: Partial<Setup["places"][number]>) =>
    set({ places: places.map((place, n) => (n === i ? { ...place, ...part } : place)) });
  return (
    <FormFrame title="Reviews" key={round} {...frame}>
      <FormSection
        title="Asking"
        note={
          <>
            Each job is asked about once. Its words are under{" "}
            <LinkBox href="/setup/occasions?id=please%20review" sx={{ color: ink.lake }}>
              Occasions
            </LinkBox>
            .
          </>
        }
      >
        <Columns>
          <Field
            select
            label="Customers are asked"
            value={draft.when}
            onChange={(e) => set({ when: e.target.value as Setup["when"] })}
            wrong={wrong("/when")}
          >
            {Object.entries(whenWords).map(([value, words]) => (
              <MenuItem key={value} value={value}>
                {words}
              </MenuItem>
            ))}
          </Field>
          <WholeField
            label="So many hours later"
            value={draft.hours}
            onValue={(hours) => set({ hours })}
            wrong={wrong("/hours")}
            disabled={draft.when === "never"}
          />
          <WholeField
            label="The same customer again after, days"
            value={draft.restDays}
            onValue={(restDays) => set({ restDays })}
            wrong={wrong("/restDays")}
            disabled={draft.when === "never"}
          />
        </Columns>
      </FormSection>
      <FormSection
        title="Elsewhere"
        note="Whoever has told you how it was may go on to these places. They are offered to everybody, content or not."
      >
        {places.map((place, i) => (
          <Box key={i} role="group" aria-label={`Place ${i + 1}`} sx={{ display: "flex", gap: 2, alignItems: "start" }}>
            <Field
              label="Name"
              value={place.name}
              onChange={(e) => change(i, { name: e.target.value })}
              wrong={wrong(`/places/${i}/name`)}
              sx={{ width: 220 }}
            />
            <Field
              label="Web address"
              value={place.address}
              onChange={(e) => change(i, { address: e.target.value })}
              wrong={wrong(`/places/${i}/address`)}
              sx={{ flex: 1 }}
            />
            <IconButton
              aria-label={`Remove place ${i + 1}`}
              onClick={() => set({ places: places.filter((_, n) => n !== i) })}
            >
              <DeleteOutlined />
            </IconButton>
          </Box>
        ))}
        <Button
          variant="outlined"
          sx={{ justifySelf: "start" }}
          disabled={places.length >= 8}
          onClick={() => set({ places: [...places, { id: null, name: "", address: "https://" }] })}
        >
          Add a place
        </Button>
      </FormSection>
    </FormFrame>
  );
}

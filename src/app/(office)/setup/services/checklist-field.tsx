"use client";
import type { ChecklistItem } from "@/core/catalogue/checklist";
import { counted } from "@/core/words";
import { Field } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import Add from "@mui/icons-material/Add";
import ArrowUpward from "@mui/icons-material/ArrowUpward";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";

/** What is ticked off on site, in order. */
export function ChecklistField({
  items,
  onItems,
  wrong,
}: {
  items: ChecklistItem[];
  onItems: (items: ChecklistItem[]) => void;
  wrong: (path: string) => string | undefined;
}) {
  const set = (at: number, change: Partial<ChecklistItem>) =>
    onItems(items.map((item, i) => (i === at ? { ...item, ...change } : item)));
  const freshId = () => {
    let n = items.length + 1;
    while (items.some((item) => item.id === `c${n}`)) n++;
    return `c${n}`;
  };
  return (
    <FormSection
      title="Checklist"
      said={counted(items.length, "item")}
      note="Ticked off on site. What must be ticked holds the visit open until it is."
    >
      {items.map((item, at) => (
        <Box key={item.id} sx={{ display: "flex", gap: 2, alignItems: "flex-start" }}>
          <Field
            label={`Item ${at + 1}`}
            value={item.words}
            onChange={(e) => set(at, { words: e.target.value })}
            wrong={wrong(`/checklist/${at}/words`)}
            sx={{ flex: 1 }}
          />
          <FormControlLabel
            control={<Checkbox checked={item.required} onChange={(e) => set(at, { required: e.target.checked })} />}
            label="Must be"
          />
          <IconButton
            aria-label={`Item ${at + 1} earlier`}
            disabled={at === 0}
            onClick={() => onItems(items.map((it, i) => (i === at - 1 ? items[at]! : i === at ? items[at - 1]! : it)))}
          >
            <ArrowUpward fontSize="small" />
          </IconButton>
          <IconButton aria-label={`Remove item ${at + 1}`} onClick={() => onItems(items.filter((_, i) => i !== at))}>
            <Close fontSize="small" />
          </IconButton>
        </Box>
      ))}
      <Box>
        <Button
          size="small"
          startIcon={<Add />}
          onClick={() => onItems([...items, { id: freshId(), words: "", required: false }])}
        >
          Item
        </Button>
      </Box>
    </FormSection>
  );
}

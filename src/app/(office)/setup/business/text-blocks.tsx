import type { ViewOutput } from "@/api/client";
import { Columns, Field } from "@/ui/form-parts";
import Add from "@mui/icons-material/Add";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

type Block = ViewOutput<"setup">["business"]["billing"]["textBlocks"][number];

const papers: Record<Block["paper"], string> = {
  invoice: "invoices",
  quote: "quotes",
  "credit note": "credit notes",
  receipt: "receipts",
  statement: "statements",
};
const everything = 0;

/** Words that are printed by themselves: on papers of a kind, above or below the lines, with a service or with all. */
export function TextBlocks({
  blocks,
  services,
  onBlocks,
  wrong,
}: {
  blocks: readonly Block[];
  services: readonly { id: number; name: string }[];
  onBlocks: (blocks: Block[]) => void;
  wrong: (field: string) => string | undefined;
}) {
  const setBlock = (at: number, part: Partial<Block>) =>
    onBlocks(blocks.map((block, i) => (i === at ? { ...block, ...part } : block)));
  const fresh: Block = { paper: "invoice", place: "after", serviceId: null, words: "" };
  return (
    <Box>
      {blocks.map((block, at) => (
        <Box key={at} role="group" aria-label={`Words ${at + 1}`} sx={{ mb: 4, display: "grid", gap: 3 }}>
          <Columns>
            <TextField
              select
              label="Printed on"
              value={block.paper}
              onChange={(e) => setBlock(at, { paper: e.target.value as Block["paper"] })}
            >
              {Object.entries(papers).map(([paper, words]) => (
                <MenuItem key={paper} value={paper}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
            <TextField
              select
              label="Where"
              value={block.place}
              onChange={(e) => setBlock(at, { place: e.target.value as Block["place"] })}
            >
              <MenuItem value="before">above the lines</MenuItem>
              <MenuItem value="after">below the lines</MenuItem>
            </TextField>
            <TextField
              select
              label="With"
              value={block.serviceId ?? everything}
              onChange={(e) => setBlock(at, { serviceId: Number(e.target.value) || null })}
            >
              <MenuItem value={everything}>all work</MenuItem>
              {services.map(({ id, name }) => (
                <MenuItem key={id} value={id}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
            <IconButton
              aria-label={`Take words ${at + 1} away`}
              onClick={() => onBlocks(blocks.filter((_, i) => i !== at))}
            >
              <Close fontSize="small" />
            </IconButton>
          </Columns>
          <Field
            label="Words"
            multiline
            minRows={2}
            value={block.words}
            onChange={(e) => setBlock(at, { words: e.target.value })}
            wrong={wrong(`/billing/textBlocks/${at}/words`)}
          />
        </Box>
      ))}
      <Button size="small" startIcon={<Add />} onClick={() => onBlocks([...blocks, fresh])}>
        Words that are printed by themselves
      </Button>
    </Box>
  );
}

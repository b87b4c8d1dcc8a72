"use client";
import type { ViewOutput } from "@/api/client";
import { type Channel, channelNames } from "@/core/messages/purposes";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import ArrowDownward from "@mui/icons-material/ArrowDownward";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { TemplateEditor } from "./template-editor";

type Setup = ViewOutput<"message-setup">;
type OccasionRow = Setup["occasions"][number];

/** Every occasion on which somebody is written to: on or off, by which channels, in which words. */
export function Occasions({ id }: { id: string | null }) {
  const setup = useShown("message-setup", {});
  const router = useRouter();
  const open = setup.occasions.find(({ occasion }) => occasion === id);
  if (open)
    return (
      <Box>
        <Button onClick={() => router.push("/setup/occasions")} sx={{ mb: 2 }}>
          ‹ All occasions
        </Button>
        <Typography variant="h2">{open.name}</Typography>
        <Box sx={{ color: ink.ash, mb: 4 }}>{open.about}</Box>
        <OccasionForm key={open.occasion} row={open} />
        <TemplateEditor key={`text ${open.occasion}`} occasion={open} setup={setup} />
      </Box>
    );
  const groups = [...new Set(setup.occasions.map(({ group }) => group))];
  return (
    <Box sx={{ display: "grid", gap: 6, maxWidth: 860 }}>
      {groups.map((group) => (
        <Box component="section" key={group} aria-label={group}>
          <Typography variant="h2" sx={{ mb: 1 }}>
            {group}
          </Typography>
          {setup.occasions
            .filter((row) => row.group === group)
            .map((row) => (
              <Row
                key={row.occasion}
                row={row}
                onOpen={() => router.push(`/setup/occasions?id=${encodeURIComponent(row.occasion)}`)}
              />
            ))}
        </Box>
      ))}
    </Box>
  );
}

const waysOf = ({ channels, each }: Pick<OccasionRow, "channels" | "each">): string =>
  channels.map((channel) => channelNames[channel]).join(each ? " and " : ", else ");

function Row({ row, onOpen }: { row: OccasionRow; onOpen: () => void }) {
  const { send, busy } = useChange("save-occasion");
  const { occasion, channels, each, outside } = row;
  return (
    <Box sx={{ display: "flex", alignItems: "center", gap: 3, py: 1.5, borderTop: `1px solid ${ink.line}` }}>
      <Switch
        checked={row.on || row.always}
        disabled={busy || row.always}
        onChange={(e) => void send({ occasion, on: e.target.checked, channels, each, outside })}
        slotProps={{ input: { "aria-label": `${row.name}: on` } }}
      />
      <Box sx={{ flex: 1 }}>
        <Box sx={{ fontWeight: 650 }}>{row.name}</Box>
        <Box sx={{ color: ink.ash, fontSize: 14 }}>{row.about}</Box>
      </Box>
      <Box sx={{ color: ink.ash, fontSize: 14, textAlign: "right" }}>
        {waysOf(row)}
        {row.changed && <Box sx={{ color: ink.lake }}>your words</Box>}
      </Box>
      <Button variant="outlined" onClick={onOpen} aria-label={`${row.name}: channels and words`}>
        Words…
      </Button>
    </Box>
  );
}

const outsideWords = {
  later: "waits until they begin",
  earlier: "comes before they end, where it can",
  other: "goes by a channel that does not ring",
  drop: "is left out",
} as const;

function OccasionForm({ row }: { row: OccasionRow }) {
  const { send, busy, problem } = useChange("save-occasion", { quiet: true, compares: true });
  const save = (part: Partial<Pick<OccasionRow, "on" | "channels" | "each" | "outside">>) => {
    const { occasion, on, channels, each, outside } = { ...row, ...part };
    void send({ occasion, on: on || row.always, channels, each, outside });
  };
  const all: Channel[] = [
    ...row.channels,
    ...(["mail", "text", "voice"] as const).filter((c) => !row.channels.includes(c)),
  ];
  const toggle = (channel: Channel, on: boolean) =>
    save({ channels: on ? [...row.channels, channel] : row.channels.filter((c) => c !== channel) });
  const later = (i: number) => {
    const channels = [...row.channels];
    [channels[i], channels[i + 1]] = [channels[i + 1]!, channels[i]!];
    save({ channels });
  };
  const wrong = problem?.fields ? Object.values(problem.fields)[0] : undefined;
  return (
    <Box role="group" aria-label="Channels" sx={{ display: "grid", gap: 2, mb: 6, maxWidth: 620 }}>
      {!row.always && (
        <FormControlLabel
          control={<Switch checked={row.on} disabled={busy} onChange={(e) => save({ on: e.target.checked })} />}
          label={row.on ? "It goes out" : "It does not go out"}
        />
      )}
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "center" }}>
        {all.map((channel, i) => {
          const isOn = row.channels.includes(channel);
          const name = channelNames[channel];
          return (
            <Box key={channel} sx={{ display: "flex", alignItems: "center" }}>
              <FormControlLabel
                control={
                  <Checkbox
                    checked={isOn}
                    disabled={busy || (isOn && row.channels.length === 1) || (!isOn && !row.texts.includes(channel))}
                    onChange={(e) => toggle(channel, e.target.checked)}
                  />
                }
                label={isOn && row.channels.length > 1 && !row.each ? `${i + 1}. ${name}` : name}
              />
              {isOn && i < row.channels.length - 1 && !row.each && (
                <IconButton size="small" aria-label={`${name} later`} disabled={busy} onClick={() => later(i)}>
                  <ArrowDownward fontSize="small" />
                </IconButton>
              )}
            </Box>
          );
        })}
      </Box>
      {row.channels.length > 1 && (
        <FormControlLabel
          control={<Checkbox checked={row.each} disabled={busy} onChange={(e) => save({ each: e.target.checked })} />}
          label="On each of them, instead of the first that reaches them"
        />
      )}
      {row.purpose !== "answer" && (
        <TextField
          select
          label="Outside the allowed hours it"
          value={row.outside}
          onChange={(e) => save({ outside: e.target.value as OccasionRow["outside"] })}
          sx={{ maxWidth: 340 }}
        >
          {Object.entries(outsideWords).map(([value, words]) => (
            <MenuItem key={value} value={value}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
      {wrong && (
        <Box role="alert" sx={{ color: ink.ember }}>
          {wrong}
        </Box>
      )}
    </Box>
  );
}

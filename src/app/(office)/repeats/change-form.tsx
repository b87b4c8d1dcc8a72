"use client";
import { type OnClosed, onClosedWays } from "@/core/repeats/coming";
import { aheadOf } from "@/core/repeats/left";
import { datesOfRule, readRule, ruleText } from "@/core/repeats/recurrence";
import { addDays } from "@/core/time/dates";
import { dayShort, windowWords } from "@/core/time/words";
import { DateField } from "@/ui/date-field";
import { TimeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import { readOrSay, RuleEditor } from "@/ui/rule-editor";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import { useView } from "@/ui/use-view";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Radio from "@mui/material/Radio";
import RadioGroup from "@mui/material/RadioGroup";
import Stack from "@mui/material/Stack";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import { Ahead } from "./ahead";
import { BestPlaces } from "./best-places";
import { TechnicianField } from "./term-fields";
import { TogetherField } from "./together-field";
import { closedWords, type RepeatDetails } from "./data";

/** Other terms from a date on. What they change is said before it is done; it can be taken back. */
export function ChangeForm({ repeat, onDone }: { repeat: RepeatDetails; onDone: () => void }) {
  const [wished, setWished] = useState(
    repeat.coming.find(({ state }) => state === "forecast")?.date ?? addDays(repeat.today, 1),
  );
  // Of an agreed number of visits, as many as are left by then: as long as nobody types another rule.
  const [typed, setText] = useState<string | null>(null);
  const left = aheadOf(readRule(repeat.rule), repeat.start, wished);
  const text = typed ?? (left ? ruleText(left) : repeat.rule);
  const [promised, setPromised] = useState<"stays" | "moves">("stays");
  const [from, setFrom] = useState(repeat.fromMinute);
  const [until, setUntil] = useState(repeat.toMinute);
  const [technicianId, setTechnicianId] = useState(repeat.technicianId);
  const [onClosed, setOnClosed] = useState<OnClosed>(repeat.onClosed);
  const [together, setTogether] = useState(false);
  const [looking, setLooking] = useState(false);
  const { send, busy, wrong } = useChange("change-repeat");
  const undo = useChange("undo-repeat-change");
  const sayWithUndo = useUndo();
  const { rule } = readOrSay(text);
  // The new terms begin on their first date from the wished one on.
  const start = (rule && datesOfRule({ ...rule, count: null }, wished, wished, addDays(wished, 3660), 1)[0]) ?? wished;
  const after = repeat.coming.filter(({ date }) => date >= wished);
  const expected = after.filter(({ state }) => state === null || state === "forecast").length;
  const isPromised = after.length > expected;
  const asked = {
    repeatId: repeat.id,
    from: wished,
    rule: text,
    fromMinute: from,
    toMinute: until,
    technicianId,
    onClosed,
    promised,
    together,
  };
  const { data: ahead } = useView("repeat-change-ahead", rule && wished ? { change: asked } : null);

  const change = async () => {
    const done = await send(asked);
    if (!done) return;
    onDone();
    const again = done.value.told ? ". Whoever has heard of it by then is told again if you take it back" : "";
    sayWithUndo(`Changed from ${dayShort(wished)} on${again}`, async () => {
      for (const { id } of [repeat, ...(together ? repeat.together : [])]) await undo.send({ repeatId: id });
    });
  };
  return (
    <Box sx={{ mt: 3, p: 3, bgcolor: ink.plaster, borderRadius: "6px" }}>
      <Stack spacing={3}>
        <DateField
          label="From then on"
          value={wished}
          onValue={(day) => day && setWished(day)}
          wrong={wrong("/from")}
        />
        <RuleEditor text={text} start={start} wrong={wrong("/rule")} onText={setText} />
        <Button
          variant="outlined"
          aria-expanded={looking}
          disabled={!rule}
          onClick={() => setLooking(!looking)}
          sx={{ alignSelf: "flex-start" }}
        >
          Where does it fit best?
        </Button>
        {looking && rule && (
          <BestPlaces
            about={{ repeatId: repeat.id, rule: text, from: wished }}
            onChoose={(place) => {
              setText(place.rule);
              setWished(place.start);
              setFrom(place.fromMinute);
              setUntil(place.toMinute);
              setTechnicianId(place.technicianId);
              setLooking(false);
            }}
          />
        )}
        <Stack direction="row" spacing={2}>
          <TimeField label="Window from" value={from} onValue={setFrom} />
          <TimeField label="until" value={until} onValue={setUntil} wrong={wrong("/toMinute")} />
        </Stack>
        <TechnicianField technicians={repeat.technicians} value={technicianId} onValue={setTechnicianId} />
        <TextField
          select
          label="On days nobody comes"
          value={onClosed}
          onChange={(e) => setOnClosed(e.target.value as OnClosed)}
        >
          {onClosedWays.map((way) => (
            <MenuItem key={way} value={way}>
              {closedWords[way]}
            </MenuItem>
          ))}
        </TextField>
        {isPromised && (
          <RadioGroup
            aria-label="What is promised already"
            value={promised}
            onChange={(e) => setPromised(e.target.value as "stays" | "moves")}
          >
            <FormControlLabel
              value="stays"
              control={<Radio />}
              label="What is promised stays, and this begins after it"
            />
            <FormControlLabel value="moves" control={<Radio />} label="What is promised moves along, and is told" />
          </RadioGroup>
        )}
        <TogetherField repeat={repeat} value={together} onValue={setTogether} />
        <Box role="status" sx={{ fontSize: 14.5 }}>
          <b>
            From {dayShort(wished)} on, {windowWords(from, until)}; first on {dayShort(start)}.
          </b>{" "}
          {expected === 1 ? "1 forecast is" : `${expected} forecasts are`} laid out anew
          {together && " here, and those of the other sites, in their own windows"}.{" "}
          {isPromised && promised === "moves"
            ? "Whoever is promised another day is told."
            : "Nobody is told: customers hear of each visit when it is promised."}
        </Box>
        <Ahead ahead={ahead} />
        <Button
          variant="contained"
          disabled={busy || !rule || ahead?.problem !== null}
          onClick={() => void change()}
          sx={{ alignSelf: "flex-start" }}
        >
          Do this
        </Button>
      </Stack>
    </Box>
  );
}

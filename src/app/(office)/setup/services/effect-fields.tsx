"use client";
import { type Effect, effectWords } from "@/core/catalogue/questions";
import { moneyWords } from "@/core/money/amounts";
import { SignedMoneyField, SignedWholeField } from "@/ui/form-parts";
import { ink } from "@/ui/palette";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { SetupData } from "../data";

interface EffectProps {
  words: string;
  effect: Effect | undefined;
  onEffect: (effect: Effect) => void;
  data: SetupData;
  each?: boolean;
}

/** What an answer does, as a sentence that opens into small fields. */
export function EffectFields(props: EffectProps) {
  const [open, setOpen] = useState(false);
  const { words, effect, data } = props;
  const sentence = effectWords(effect, {
    money: (minor) => moneyWords(minor, data.currency),
    skill: (id) => data.skillIds.find((s) => String(s.id) === id)?.name ?? "a skill that is gone",
    extra: (id) => data.extras.find((x) => String(x.id) === id)?.name ?? "an extra that is gone",
  });
  return (
    <Box sx={{ flex: 1, minWidth: 0 }}>
      <ButtonBase
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        sx={{ display: "block", width: "100%", textAlign: "left", py: 1.5, fontSize: 14.5, borderRadius: "6px" }}
      >
        {words && <b>{words}: </b>}
        <Box
          component="span"
          sx={{
            textDecoration: "underline dotted",
            textUnderlineOffset: 4,
            color: effect && Object.keys(effect).length ? ink.ink : ink.ash,
          }}
        >
          {sentence}
        </Box>
      </ButtonBase>
      {open && <Fields {...props} />}
    </Box>
  );
}

function Fields({ words, effect = {}, onEffect, data, each = false }: EffectProps) {
  const { price } = effect;
  const how = price?.how ?? "none";
  const set = (change: Partial<Effect>) =>
    onEffect(
      Object.fromEntries(
        Object.entries({ ...effect, ...change }).filter(
          ([, v]) => v !== undefined && v !== 0 && !(Array.isArray(v) && v.length === 0),
        ),
      ) as Effect,
    );
  const priceOf = (kind: string): Effect["price"] =>
    kind === "none"
      ? undefined
      : kind === "percent"
        ? { how: "percent", basisPoints: 1000 }
        : { how: kind as "add" | "replace", minor: 0 };
  return (
    <Box
      role="group"
      aria-label={words}
      sx={{ display: "flex", gap: 2, flexWrap: "wrap", alignItems: "flex-start", pt: 1, pb: 2 }}
    >
      <TextField
        select
        label="Price"
        value={how}
        onChange={(e) => set({ price: priceOf(e.target.value) })}
        sx={{ width: 130 }}
      >
        <MenuItem value="none">as it is</MenuItem>
        <MenuItem value="add">{each ? "adds each" : "adds"}</MenuItem>
        {!each && <MenuItem value="replace">is instead</MenuItem>}
        {!each && <MenuItem value="percent">changes by %</MenuItem>}
      </TextField>
      {price && price.how !== "percent" && (
        <SignedMoneyField
          currency={data.currency}
          label={data.currency}
          value={price.minor}
          onValue={(minor) => set({ price: { how: price.how, minor } })}
          sx={{ width: 90 }}
        />
      )}
      {price?.how === "percent" && (
        <SignedWholeField
          label="%"
          value={price.basisPoints / 100}
          onValue={(percent) => set({ price: { how: "percent", basisPoints: percent * 100 } })}
          sx={{ width: 80 }}
        />
      )}
      <SignedWholeField
        label="Minutes more"
        value={effect.minutes ?? 0}
        onValue={(minutes) => set({ minutes })}
        sx={{ width: 105 }}
      />
      {!each && (
        <TextField
          select
          label="People"
          value={effect.crew ?? 0}
          onChange={(e) => set({ crew: Number(e.target.value) || undefined })}
          sx={{ width: 110 }}
        >
          <MenuItem value={0}>as it is</MenuItem>
          {[2, 3, 4].map((n) => (
            <MenuItem key={n} value={n}>
              {n} or more
            </MenuItem>
          ))}
        </TextField>
      )}
      <Autocomplete
        multiple
        size="small"
        options={data.skillIds.map((s) => String(s.id))}
        value={(effect.skills ?? []).map((s) => s.skill)}
        onChange={(_, ids) => set({ skills: ids.map((skill) => ({ skill })) })}
        getOptionLabel={(id) => data.skillIds.find((s) => String(s.id) === id)?.name ?? "a skill that is gone"}
        renderInput={(params) => <TextField {...params} label="Skills more" />}
        sx={{ width: 180 }}
      />
      {data.extras.length > 0 && (
        <Autocomplete
          multiple
          size="small"
          options={data.extras.map((x) => String(x.id))}
          value={(effect.extras ?? []).map((x) => x.id)}
          onChange={(_, ids) =>
            set({ extras: ids.map((id) => effect.extras?.find((x) => x.id === id) ?? { id, quantity: 1 }) })
          }
          getOptionLabel={(id) => data.extras.find((x) => String(x.id) === id)?.name ?? "an extra that is gone"}
          renderInput={(params) => <TextField {...params} label={each ? "Extras each" : "Brings extras"} />}
          sx={{ width: 180 }}
        />
      )}
    </Box>
  );
}

"use client";
import { DateField } from "@/ui/date-field";
import { FormFrame, without } from "@/ui/form-frame";
import { Columns, Field, MoneyField, OptionalWholeField, PercentField } from "@/ui/form-parts";
import { useKeptForm } from "@/ui/use-kept-form";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import type { SetupData } from "../data";
import { NamedField } from "../windows/named-field";

type Coupon = SetupData["coupons"][number];
type Draft = Omit<Coupon, "id" | "used" | "services"> & { id: number | null; services: number[] };
const fresh: Draft = {
  id: null,
  code: "",
  kind: "percent",
  value: 1000,
  services: [],
  first: null,
  last: null,
  most: null,
  active: true,
};

export function CouponForm({
  coupon,
  data,
  saved,
}: {
  coupon: Coupon | null;
  data: SetupData;
  saved: (id: number) => void;
}) {
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-coupon",
    of: `coupons ${coupon?.id ?? "new"}`,
    from: coupon ? (without(coupon, "used") as Draft) : fresh,
    input: (d) => d,
    name: (d) => d.code.toUpperCase(),
    saved: (value) => saved(value.id),
  });
  return (
    <FormFrame
      title={coupon?.code ?? "New coupon"}
      note={
        coupon
          ? `Used ${coupon.used} ${coupon.used === 1 ? "time" : "times"}. What was booked with it keeps its price.`
          : undefined
      }
      key={round}
      {...frame}
    >
      <Columns>
        <Field
          label="Code"
          value={draft.code}
          onChange={(e) => set({ code: e.target.value })}
          wrong={wrong("/code")}
          helperText="Capitals do not matter"
        />
        <TextField
          select
          label="Takes off"
          value={draft.kind}
          onChange={(e) => set({ kind: e.target.value as Draft["kind"], value: 1000 })}
        >
          <MenuItem value="percent">a share</MenuItem>
          <MenuItem value="fixed">an amount</MenuItem>
        </TextField>
        {draft.kind === "percent" ? (
          <PercentField
            label="Share, %"
            value={draft.value}
            onValue={(value) => set({ value })}
            wrong={wrong("/value")}
          />
        ) : (
          <MoneyField
            currency={data.currency}
            label={`Amount, ${data.currency}`}
            value={draft.value}
            onValue={(value) => set({ value })}
            wrong={wrong("/value")}
          />
        )}
      </Columns>
      <NamedField
        label="Services"
        none="all of them"
        options={data.services}
        ids={draft.services}
        onIds={(services) => set({ services })}
      />
      <Columns>
        <DateField
          label="Counts from"
          clearable
          value={draft.first}
          onValue={(first) => set({ first })}
          wrong={wrong("/first")}
        />
        <DateField
          label="Counts until"
          clearable
          value={draft.last}
          onValue={(last) => set({ last })}
          wrong={wrong("/last")}
        />
        <OptionalWholeField
          label="Most uses"
          value={draft.most}
          onValue={(most) => set({ most })}
          wrong={wrong("/most")}
          helperText="Empty: no limit"
        />
      </Columns>
      <FormControlLabel
        control={<Switch checked={draft.active} onChange={(e) => set({ active: e.target.checked })} />}
        label={draft.active ? "Counts" : "Archived"}
      />
    </FormFrame>
  );
}

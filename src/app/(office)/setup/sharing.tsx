"use client";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import { useState, type ReactNode } from "react";
import { moneyWords } from "@/core/money/amounts";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import { Field } from "./form-parts";
import type { SetupData } from "./setup-screen";

/** The links that lead to the front door, and where customers come from. */
export function Sharing({ services }: { services: SetupData["services"] }) {
  const { data, problem, refresh } = useView("sharing", {});
  const add = useChange("add-source");
  const remove = useChange("remove-source");
  const [name, setName] = useState("");
  const { enqueueSnackbar } = useSnackbar();
  if (problem) return <Box>{problem.sentence}</Box>;
  if (!data) return <Box aria-busy="true" />;
  const amount = (minor: number) => moneyWords(minor, data.currency);
  const copy = (address: string) => void navigator.clipboard?.writeText(address).then(() => enqueueSnackbar("The link is copied", { variant: "success" }));
  const link = (address: string, what: string) => (
    <>
      <Box component="code" sx={{ fontSize: 13.5, overflowWrap: "anywhere" }}>{address}</Box>
      <Button size="small" aria-label={`Copy the link of ${what}`} onClick={() => copy(address)} sx={{ flex: "none" }}>Copy</Button>
    </>
  );
  return (
    <Box sx={{ display: "grid", gap: 7 }}>
      <Section title="Your front door">
        <Row>{link(data.address, "the front door")}</Row>
      </Section>
      <Section title="Where customers come from" note="Give each place its own link: a fair, a van, a leaflet. What comes by links you have not named is kept as other.">
        {data.sources.map((source) => (
          <Row key={source.slug}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <b>{source.name}</b>
              <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>{link(`${data.address}?from=${source.slug}`, source.name)}</Box>
            </Box>
            <Counted {...source} amount={amount} />
            <IconButton aria-label={`Stop counting ${source.name}`} onClick={() => void remove.send({ slug: source.slug }).then((done) => done && refresh())}><Close fontSize="small" /></IconButton>
          </Row>
        ))}
        {data.others.map((source) => (
          <Row key={source.source}>
            <Box sx={{ flex: 1, color: ink.ash }}>{source.name}</Box>
            <Counted {...source} amount={amount} />
            <Box sx={{ width: 36 }} />
          </Row>
        ))}
        <Box component="form" onSubmit={(e) => (e.preventDefault(), void add.send({ name }).then((done) => done && (setName(""), refresh())))} sx={{ display: "flex", gap: 2, alignItems: "flex-start", mt: 3 }}>
          <Field label="A new source" value={name} onChange={(e) => setName(e.target.value)} wrong={add.wrong("/name")} sx={{ maxWidth: 320 }} />
          <Button type="submit" variant="outlined" disabled={add.busy || !name.trim()} sx={{ height: 40 }}>Add it</Button>
        </Box>
      </Section>
      <Section title="Straight to a service">
        {services.map((service) => <Row key={service.id}><Box sx={{ width: 200, flex: "none" }}>{service.name}</Box>{link(`${data.address}?service=${service.slug}`, service.name)}</Row>)}
      </Section>
    </Box>
  );
}

function Counted({ bookings, minor, earnedMinor, amount }: { bookings: number; minor: number; earnedMinor: number; amount: (minor: number) => string }) {
  return (
    <Box sx={{ textAlign: "right", flex: "none", fontVariantNumeric: "tabular-nums" }}>
      {bookings} {bookings === 1 ? "booking" : "bookings"}, {amount(minor)}
      <Box sx={{ color: ink.ash, fontSize: 13.5 }}>{amount(earnedMinor)} paid</Box>
    </Box>
  );
}

const Section = ({ title, note, children }: { title: string; note?: string; children: ReactNode }) => (
  <Box component="section" aria-label={title}>
    <Typography variant="h2" sx={{ mb: 1 }}>{title}</Typography>
    {note && <Box sx={{ color: ink.ash, mb: 2 }}>{note}</Box>}
    {children}
  </Box>
);

const Row = ({ children }: { children: ReactNode }) => <Box sx={{ display: "flex", gap: 3, alignItems: "center", borderTop: `1px solid ${ink.line}`, py: 1.5 }}>{children}</Box>;

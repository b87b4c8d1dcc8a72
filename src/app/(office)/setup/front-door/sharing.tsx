"use client";
import type { ViewOutput } from "@/api/client";
import { type KindOfBusiness, kindsOfBusiness } from "@/core/catalogue/kinds";
import { moneyWords } from "@/core/money/amounts";
import { Field } from "@/ui/form-parts";
import { useLive } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useCopy } from "@/ui/use-copy";
import Close from "@mui/icons-material/Close";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import { toDataURL } from "qrcode";
import { type ReactNode, useEffect, useState } from "react";
import type { SetupData } from "../data";

/** The links that lead to the front door, and where customers come from. */
export function Sharing({ services }: { services: SetupData["services"] }) {
  const { data, problem, refresh } = useLive("sharing", {});
  const add = useChange("add-source", {
    then() {
      setName("");
      refresh();
    },
  });
  const remove = useChange("remove-source", { then: refresh });
  const [name, setName] = useState("");
  const copy = useCopy();
  if (problem) return <Box>{problem.sentence}</Box>;
  if (!data) return <Box aria-busy="true" />;
  const amount = (minor: number) => moneyWords(minor, data.currency);
  const link = (address: string, what: string) => (
    <>
      <Box component="code" sx={{ fontSize: 13.5, overflowWrap: "anywhere" }}>
        {address}
      </Box>
      <Button size="small" aria-label={`Copy the link of ${what}`} onClick={() => copy(address)} sx={{ flex: "none" }}>
        Copy
      </Button>
    </>
  );
  return (
    <Box sx={{ display: "grid", gap: 7 }}>
      <Section title="Your front door">
        <Row>{link(data.address, "the front door")}</Row>
        <QrCode address={data.address} />
      </Section>
      <Section
        title="On your own site"
        note={
          data.sites.length
            ? `In a frame on ${data.sites.join(", ")}; more sites in Front door.`
            : "A button works everywhere. For a frame, name your site in Front door first."
        }
      >
        <Snippet name="Button" code={buttonCode(data)} onCopy={copy} />
        <Snippet name="Frame that grows with its content" code={frameCode(data)} onCopy={copy} />
      </Section>
      <Directories key={JSON.stringify(data.directory)} directory={data.directory} onSaved={refresh} />
      <Section
        title="Where customers come from"
        note="Give each place its own link: a fair, a van, a leaflet. What comes by links you have not named is kept as other."
      >
        {data.sources.map((source) => (
          <Row key={source.slug}>
            <Box sx={{ flex: 1, minWidth: 0 }}>
              <b>{source.name}</b>
              <Box sx={{ display: "flex", gap: 2, alignItems: "center" }}>
                {link(`${data.address}?from=${source.slug}`, source.name)}
              </Box>
            </Box>
            <Counted {...source} amount={amount} />
            <IconButton
              aria-label={`Stop counting ${source.name}`}
              onClick={() => void remove.send({ slug: source.slug })}
            >
              <Close fontSize="small" />
            </IconButton>
          </Row>
        ))}
        {data.others.map((source) => (
          <Row key={source.source}>
            <Box sx={{ flex: 1, color: ink.ash }}>{source.name}</Box>
            <Counted {...source} amount={amount} />
            <Box sx={{ width: 36 }} />
          </Row>
        ))}
        <Box
          component="form"
          onSubmit={(e) => {
            e.preventDefault();
            void add.send({ name });
          }}
          sx={{ display: "flex", gap: 2, alignItems: "flex-start", mt: 3 }}
        >
          <Field
            label="A new source"
            value={name}
            onChange={(e) => setName(e.target.value)}
            wrong={add.wrong("/name")}
            sx={{ maxWidth: 320 }}
          />
          <Button type="submit" variant="outlined" disabled={add.busy || !name.trim()} sx={{ height: 40 }}>
            Add it
          </Button>
        </Box>
      </Section>
      <Section title="Straight to a service">
        {services.map((service) => (
          <Row key={service.id}>
            <Box sx={{ width: 200, flex: "none" }}>{service.name}</Box>
            {link(`${data.address}?service=${service.slug}`, service.name)}
          </Row>
        ))}
      </Section>
    </Box>
  );
}

interface Door {
  name: string;
  address: string;
  origin: string;
  accent: string;
}
const quoted = (text: string): string =>
  text.replaceAll("&", "&amp;").replaceAll('"', "&quot;").replaceAll("<", "&lt;");
const buttonCode = ({ name, address, accent }: Door): string =>
  `<a href="${address}" style="display:inline-block;padding:14px 22px;border-radius:22px 22px 6px 6px;background:${accent};color:#fbfaf6;font:600 17px sans-serif;text-decoration:none">Book ${quoted(name)}</a>`;
const frameCode = ({ name, address, origin }: Door): string =>
  `<iframe src="${address}" title="Book ${quoted(name)}" style="width:100%;min-height:640px;border:0"></iframe>\n<script src="${origin}/embed.js"></script>`;

function Snippet({ name, code, onCopy }: { name: string; code: string; onCopy: (code: string) => void }) {
  return (
    <Box sx={{ borderTop: `1px solid ${ink.line}`, py: 3 }}>
      <Box sx={{ display: "flex", justifyContent: "space-between", mb: 1 }}>
        <b>{name}</b>
        <Button size="small" aria-label={`Copy the code: ${name}`} onClick={() => onCopy(code)}>
          Copy
        </Button>
      </Box>
      <Box
        component="pre"
        tabIndex={0}
        aria-label={name}
        sx={{
          m: 0,
          p: 3,
          bgcolor: ink.plaster,
          borderRadius: "6px",
          fontSize: 13,
          whiteSpace: "pre-wrap",
          overflowWrap: "anywhere",
        }}
      >
        {code}
      </Box>
    </Box>
  );
}

/** The link as a picture for vans and leaflets. */
function QrCode({ address }: { address: string }) {
  const [picture, setPicture] = useState<string | null>(null);
  useEffect(
    () =>
      void toDataURL(address, { margin: 2, width: 720, color: { dark: ink.ink, light: "#ffffff" } }).then(setPicture),
    [address],
  );
  if (!picture) return null;
  return (
    <Box sx={{ display: "flex", gap: 5, alignItems: "center", borderTop: `1px solid ${ink.line}`, py: 3 }}>
      <Box
        component="img"
        src={picture}
        alt="The link to your front door as a QR code"
        sx={{ width: 128, height: 128 }}
      />
      <Box>
        For vans, leaflets and the back of an invoice.
        <br />
        <Button size="small" href={picture} download="front-door.png">
          Download the picture
        </Button>
      </Box>
    </Box>
  );
}

/** Whether directories may read what we do, and under which of their headings. */
function Directories({ directory, onSaved }: { directory: ViewOutput<"sharing">["directory"]; onSaved: () => void }) {
  const [listed, setListed] = useState(directory.listed);
  const [kinds, setKinds] = useState(directory.categories);
  const { send, busy } = useChange("save-directory", { compares: true });
  const { enqueueSnackbar } = useSnackbar();
  const save = async () => {
    if (
      !(await send({
        listed,
        kinds: kinds.map(({ name, kind }) => ({ category: name, kind: (kind || null) as KindOfBusiness | null })),
      }))
    )
      return;
    enqueueSnackbar(listed ? "Directories may read what you do" : "Directories read nothing", { variant: "success" });
    onSaved();
  };
  return (
    <Section
      title="In directories"
      note="Directories read your services, prices to begin with and links, under the headings you choose. What you hide at the front door stays out."
    >
      <FormControlLabel
        control={<Switch checked={listed} onChange={(e) => setListed(e.target.checked)} />}
        label={listed ? "Directories may read it" : "No directory reads it"}
      />
      {listed &&
        kinds.map(({ name, kind }) => (
          <Row key={name}>
            <Box sx={{ width: 200, flex: "none" }}>{name}</Box>
            <TextField
              select
              label={`${name} is`}
              value={kind}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              onChange={(e) => setKinds(kinds.map((k) => (k.name === name ? { name, kind: e.target.value } : k)))}
              sx={{ maxWidth: 320 }}
            >
              <MenuItem value="">not one of these</MenuItem>
              {Object.entries(kindsOfBusiness).map(([key, words]) => (
                <MenuItem key={key} value={key}>
                  {words}
                </MenuItem>
              ))}
            </TextField>
          </Row>
        ))}
      <Row>
        <Button variant="outlined" disabled={busy} onClick={() => void save()}>
          Save
        </Button>
        {directory.listed && (
          <>
            <Box component="code" sx={{ fontSize: 13.5 }}>
              {directory.feed}
            </Box>
            <a href="/standins/directory">See a directory</a>
          </>
        )}
      </Row>
    </Section>
  );
}

function Counted({
  bookings,
  minor,
  earnedMinor,
  amount,
}: {
  bookings: number;
  minor: number;
  earnedMinor: number;
  amount: (minor: number) => string;
}) {
  return (
    <Box sx={{ textAlign: "right", flex: "none", fontVariantNumeric: "tabular-nums" }}>
      {bookings} {bookings === 1 ? "booking" : "bookings"}, {amount(minor)}
      <Box sx={{ color: ink.ash, fontSize: 13.5 }}>{amount(earnedMinor)} paid</Box>
    </Box>
  );
}

const Section = ({ title, note, children }: { title: string; note?: string; children: ReactNode }) => (
  <Box component="section" aria-label={title}>
    <Typography variant="h2" sx={{ mb: 1 }}>
      {title}
    </Typography>
    {note && <Box sx={{ color: ink.ash, mb: 2 }}>{note}</Box>}
    {children}
  </Box>
);

const Row = ({ children }: { children: ReactNode }) => (
  <Box sx={{ display: "flex", gap: 3, alignItems: "center", borderTop: `1px solid ${ink.line}`, py: 1.5 }}>
    {children}
  </Box>
);

"use client";
import { moneyWords } from "@/core/money/amounts";
import { clock, dayShort, windowWords } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { arch, ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { useOffice } from "../office-context";
import { type Asked, BookHere } from "./book-here";
import { type Explained, followingDays } from "./data";

type Window = Explained["windows"][number];
type Verdict = Window["technicians"][number];
interface Chosen {
  window: number;
  technician: string | null;
}

/** Windows side by side as arches, technicians under one another; the chosen cell is told in full below. */
export function WindowsTable({ data, date, asked }: { data: Explained; date: string; asked: Asked }) {
  const { person } = useOffice();
  const [chosen, setChosen] = useState<Chosen>({ window: 0, technician: null });
  const window = data.windows[chosen.window] ?? data.windows[0]!;
  const sorted = [...data.technicians].sort((a, b) => rank(b.id) - rank(a.id));
  const order = new Map(sorted.map((t, i) => [t.id, i]));
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 330px", gap: 6, alignItems: "start" }}>
      <Box sx={{ overflowX: "auto" }}>
        <Box
          component="table"
          aria-label="Windows and technicians"
          sx={{ borderCollapse: "separate", borderSpacing: "6px 0", ml: "-6px" }}
        >
          <thead>
            <tr>
              <Box
                component="th"
                scope="col"
                sx={{
                  ...stuck,
                  minWidth: 150,
                  textAlign: "left",
                  fontWeight: 400,
                  color: ink.ash,
                  fontSize: 14,
                  verticalAlign: "bottom",
                  pb: 2,
                }}
              >
                Technician
              </Box>
              {data.windows.map((w, at) => (
                <Box component="th" scope="col" key={at} sx={{ p: 0, minWidth: 118, verticalAlign: "bottom" }}>
                  <ButtonBase
                    aria-pressed={at === chosen.window && chosen.technician === null}
                    onClick={() => setChosen({ window: at, technician: null })}
                    aria-label={`${wordsOf(w)}: ${w.offered ? "offered" : "not offered"}`}
                    sx={{
                      width: "100%",
                      height: 74,
                      borderRadius: arch,
                      display: "grid",
                      placeContent: "end center",
                      pb: 2,
                      fontSize: 15,
                      border: `${at === chosen.window ? 2 : 1}px ${w.offered ? "solid" : "dashed"} ${w.offered ? ink.moss : ink.ember}`,
                      bgcolor: w.offered ? "#E9EFE0" : "#fff",
                      color: ink.ink,
                    }}
                  >
                    <b>{wordsOf(w)}</b>
                    <Box
                      component="span"
                      sx={{ fontSize: 12.5, fontWeight: 400, color: w.offered ? "#3d5a29" : ink.ember }}
                    >
                      {w.offered ? "✓ offered" : "✕ not offered"}
                    </Box>
                  </ButtonBase>
                </Box>
              ))}
            </tr>
          </thead>
          <tbody>
            {sorted.map(({ id, name }) => (
              <tr key={id}>
                <Box
                  component="th"
                  scope="row"
                  sx={{
                    ...stuck,
                    textAlign: "left",
                    fontWeight: 400,
                    borderTop: `1px solid ${ink.line}`,
                    py: 2,
                    pr: 2,
                  }}
                >
                  {name}
                </Box>
                {data.windows.map((w, at) => {
                  const verdict = w.technicians.find((t) => t.id === id);
                  const here = chosen.window === at && chosen.technician === id;
                  return (
                    <Box component="td" key={at} sx={{ p: 0, borderTop: `1px solid ${ink.line}` }}>
                      {verdict && (
                        <ButtonBase
                          onClick={() => setChosen({ window: at, technician: id })}
                          aria-pressed={here}
                          aria-label={`${name}, ${wordsOf(w)}: ${verdict.fits ? "can come" : verdict.words}`}
                          sx={{
                            width: 118,
                            minHeight: 44,
                            px: 1,
                            py: 1,
                            fontSize: 12.5,
                            lineHeight: 1.25,
                            display: "block",
                            textAlign: "center",
                            borderRadius: "6px",
                            color: verdict.fits ? ink.ink : ink.ash,
                            bgcolor: here ? ink.plaster : "transparent",
                            outline: here ? `1px solid ${ink.pine}` : "none",
                          }}
                        >
                          {verdict.fits ? (
                            <>
                              <Box component="span" sx={{ color: ink.moss, fontWeight: 700 }}>
                                ✓{" "}
                              </Box>
                              {clock(verdict.fits.arrives)}, +{verdict.fits.extraDriving} min
                            </>
                          ) : (
                            shortly(verdict)
                          )}
                        </ButtonBase>
                      )}
                    </Box>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </Box>
      </Box>
      <Box sx={{ display: "grid", gap: 5, position: "sticky", top: 16 }}>
        <Detail
          data={data}
          window={{
            ...window,
            technicians: [...window.technicians].sort((a, b) => order.get(a.id)! - order.get(b.id)!),
          }}
          technician={chosen.technician}
          date={date}
          choose={(id) => setChosen({ ...chosen, technician: id })}
        />
        {window.offered && person.permissions.includes("board.change") && (
          <BookHere
            asked={asked}
            window={window.window}
            words={`${dayShort(window.window.date)}, ${wordsOf(window)}, ${moneyWords(window.totalMinor, asked.currency)}`}
          />
        )}
      </Box>
    </Box>
  );

  /** Those who can come somewhere first, then those with the skills. */
  function rank(id: string): number {
    const able = data.technicians.find((t) => t.id === id)!.able ? 1 : 0;
    return data.windows.filter((w) => w.technicians.some((t) => t.id === id && t.fits)).length * 2 + able;
  }
}

const stuck = { position: "sticky", left: 0, bgcolor: ink.paper, zIndex: 1 } as const;
const wordsOf = (w: Window): string => (w.from === w.to ? clock(w.from) : windowWords(w.from, w.to));

/** A refusal in two or three words, for a cell. */
function shortly({ code, words }: Verdict): string {
  switch (code) {
    case "no-skill":
      return "no skill";
    case "skill-expired":
      return "skill ended";
    case "other-zone":
      return "other zones";
    case "other-services":
      return "other services";
    case "off":
      return "off";
    case "outside-hours":
      return "not at work";
    case "limit-reached":
      return "full";
    case "out-of-reach":
      return words!.replace("would be ", "");
    default:
      return words ?? "";
  }
}

function Detail({
  data,
  window,
  technician,
  date,
  choose,
}: {
  data: Explained;
  window: Window;
  technician: string | null;
  date: string;
  choose: (id: string | null) => void;
}) {
  const verdict = technician === null ? undefined : window.technicians.find((t) => t.id === technician);
  const name = data.technicians.find((t) => t.id === technician)?.name;
  return (
    <Box component="aside" aria-live="polite" aria-label="Why" sx={{ bgcolor: ink.plaster, p: 5, borderRadius: "6px" }}>
      <Typography variant="h3" component="h2" sx={{ mb: 2 }}>
        {wordsOf(window)}
        {name ? `, ${name}` : ""}
      </Typography>
      {verdict ? <OfTechnician verdict={verdict} name={name!} date={date} /> : <OfWindow window={window} data={data} />}
      {technician !== null && (
        <Box sx={{ mt: 3 }}>
          <ButtonBase onClick={() => choose(null)} sx={{ color: ink.lake, textDecoration: "underline" }}>
            The whole window
          </ButtonBase>
        </Box>
      )}
    </Box>
  );
}

function OfWindow({ window, data }: { window: Window; data: Explained }) {
  const nameOf = (id: string) => data.technicians.find((t) => t.id === id)?.name ?? "Somebody";
  const able = window.technicians.filter((t) => t.fits);
  const nearest = window.technicians.filter((t) => !t.fits && t.remedy);
  return (
    <Box sx={{ display: "grid", gap: 3 }}>
      <Box>
        {window.offered
          ? `It is offered${window.onOurWay === null ? "" : `, at ${window.onOurWay} min of extra driving`}${window.meetAt === null ? "" : `; the crew meets at ${clock(window.meetAt)}`}${window.followingDays.length ? `; the work ${followingDays(window.followingDays)}` : ""}.`
          : "It is not offered."}
      </Box>
      {window.against.map((rule) => (
        <Box key={rule.words}>
          <b>{sentence(rule.words)}</b>
          {rule.remedy && <Box sx={{ color: ink.ash, fontSize: 14 }}>Would open it: {rule.remedy}.</Box>}
        </Box>
      ))}
      {able.length > 0 && (
        <Box>
          {able.map((t) => nameOf(t.id)).join(", ")} {able.length === 1 ? "has" : "have"} room then.
        </Box>
      )}
      {!window.offered && able.length < data.service.crew && nearest.length > 0 && (
        <Box>
          <Box sx={{ color: ink.ash, fontSize: 14, mb: 1 }}>What would open it, by technician</Box>
          {nearest.map((t) => (
            <Box key={t.id} sx={{ fontSize: 14, py: 1, borderTop: `1px solid ${ink.line}` }}>
              {nameOf(t.id)}: {t.remedy}
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}

function OfTechnician({ verdict, name, date }: { verdict: Verdict; name: string; date: string }) {
  const mayMend = useOffice().person.permissions.includes("setup.change");
  if (verdict.fits) {
    const { arrives, latest, extraDriving } = verdict.fits;
    return (
      <Box>
        {name} can be there{" "}
        {latest === arrives ? `at ${clock(arrives)}` : `between ${clock(arrives)} and ${clock(latest)}`}, with{" "}
        {extraDriving} min of extra driving.
      </Box>
    );
  }
  return (
    <Box sx={{ display: "grid", gap: 3 }}>
      <Box>
        <b>
          {name} {verdict.words}.
        </b>
        {verdict.where && ` That is ${verdict.where}.`}
      </Box>
      {verdict.remedy && <Box>Would open it: {verdict.remedy}.</Box>}
      {verdict.code === "out-of-reach" && (
        <LinkBox href={`/board?date=${date}`} sx={{ color: ink.lake }}>
          See the day on the board
        </LinkBox>
      )}
      {mayMend &&
        (verdict.code === "no-skill" ||
          verdict.code === "skill-expired" ||
          verdict.code === "off" ||
          verdict.code === "outside-hours") && (
          <LinkBox href={`/setup/technicians?id=${verdict.id}`} sx={{ color: ink.lake }}>
            {name} in Set-up
          </LinkBox>
        )}
    </Box>
  );
}

const sentence = (words: string): string => `${words[0]!.toUpperCase()}${words.slice(1)}.`;

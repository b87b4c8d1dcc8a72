"use client";
import { change, type ViewOutput } from "@/api/client";
import { useLive, useRefresh } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useWork, WorkProgress } from "@/ui/use-work";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useSnackbar } from "notistack";
import { useState } from "react";
import { type ChosenTerms, TermsToChoose, termsTaken } from "./terms-to-choose";

type Side = ViewOutput<"possible-duplicates">["open"][number]["sides"][number];

/** Two who may be one, side by side: which to keep, or that they are two. Either can be taken back. */
export function PossibleDuplicates() {
  const { data } = useLive("possible-duplicates", {});
  const [open, setOpen] = useState(false);
  const [chosen, setChosen] = useState<ChosenTerms>({});
  const work = useWork();
  const refresh = useRefresh();
  const merge = useChange("merge-customers");
  const split = useChange("split-customers");
  const apart = useChange("keep-apart");
  const { enqueueSnackbar } = useSnackbar();
  const [pair] = data?.open ?? [];
  if (!data || (!pair && data.merged.length === 0)) return null;
  const undoable = (words: string, undo: () => Promise<unknown>) => {
    enqueueSnackbar(words, {
      variant: "success",
      action: (
        <Button color="inherit" size="small" onClick={() => void undo()}>
          Undo
        </Button>
      ),
    });
  };
  const keep = async (side: Side) => {
    const gone = pair?.sides.find((other) => other !== side);
    if (!pair || !gone) return;
    const takes = termsTaken(pair.terms, chosen, gone.id);
    if (await merge.send({ keepId: side.id, goneId: gone.id, takes }))
      undoable(`They are one customer now: ${side.name}`, () => split.send({ pairId: pair.id }));
  };
  const joinAlike = () =>
    work.through("Joined", async (step) => {
      for (const [i, { keepId, goneId }] of data.alike.entries()) {
        if (step(i, data.alike.length)) break;
        const done = await change("merge-customers", { keepId, goneId });
        // Three of one person: the second pair may be settled with the first.
        if (!done.ok && done.problem.code !== "not-found") return done.problem.sentence;
      }
      refresh();
      return null;
    });
  const keepApart = async () => {
    if (pair && (await apart.send({ pairId: pair.id, apart: true })))
      undoable("They stay two customers", () => apart.send({ pairId: pair.id, apart: false }));
  };
  return (
    <Box component="section" aria-label="Possible duplicates" sx={{ px: 6, pb: 4 }}>
      <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)}>
        {data.open.length
          ? `${data.open.length} ${data.open.length === 1 ? "pair" : "pairs"} may be the same person`
          : "Merged customers"}
      </Button>
      {open && data.alike.length > 0 && (
        <Box sx={{ mt: 2, display: "flex", gap: 3, alignItems: "center" }}>
          {!work.busy && (
            <Button variant="contained" size="small" onClick={() => void joinAlike()}>
              Join {data.alike.length === 1 ? "the pair that is" : `the ${data.alike.length} pairs that are`} alike in
              name, email, phone and address
            </Button>
          )}
          <WorkProgress work={work} />
          {work.problem && <span role="alert">{work.problem}</span>}
        </Box>
      )}
      {open && pair && (
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 5, mt: 2, maxWidth: 820 }}>
          {pair.sides.map((side, i) => (
            <Box
              key={side.id}
              sx={{
                borderTop: `1px solid ${ink.line}`,
                pt: 3,
                display: "grid",
                gap: 1,
                fontSize: 14.5,
                alignContent: "start",
              }}
            >
              <b>{side.name}</b>
              <Same same={pair.sides[0].mail === pair.sides[1].mail}>{side.mail}</Same>
              <Same same={pair.sides[0].phone === pair.sides[1].phone}>{side.phone}</Same>
              {side.sites.map((site) => (
                <Same key={site} same={pair.sides[1 - i]!.sites.includes(site)}>
                  {site}
                </Same>
              ))}
              <span>
                {side.visits} {side.visits === 1 ? "visit" : "visits"}
              </span>
              <Button
                variant="outlined"
                size="small"
                disabled={merge.busy}
                onClick={() => void keep(side)}
                sx={{ justifySelf: "start", mt: 1 }}
              >
                One person: keep this one
              </Button>
            </Box>
          ))}
          <TermsToChoose terms={pair.terms} sides={pair.sides} chosen={chosen} onChosen={setChosen} />
          <Button size="small" disabled={apart.busy} onClick={() => void keepApart()} sx={{ justifySelf: "start" }}>
            They are two people
          </Button>
        </Box>
      )}
      {open &&
        data.merged.map((m) => (
          <Box key={m.id} sx={{ color: ink.ash, fontSize: 14, mt: 1 }}>
            {m.gone} was merged into {m.kept}.{" "}
            <Button size="small" disabled={split.busy} onClick={() => void split.send({ pairId: m.id })}>
              Take it back
            </Button>
          </Box>
        ))}
    </Box>
  );
}

/** What both have in common is marked, with a sign beside the colour. */
const Same = ({ same, children }: { same: boolean; children: React.ReactNode }) => (
  <span style={same ? { fontWeight: 650, color: ink.pine } : undefined}>
    {same && "= "}
    {children}
  </span>
);

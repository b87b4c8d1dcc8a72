"use client";
import { shortForms } from "@/core/people/names";
import { clock, durationWords, windowWords } from "@/core/time/words";
import { stateGlyphs } from "@/ui/arch";
import { hues, ink } from "@/ui/palette";
import { useDraggable } from "@dnd-kit/core";
import Box from "@mui/material/Box";
import Tooltip from "@mui/material/Tooltip";
import type { BoardStop, BoardVisit } from "./data";

interface CardProps {
  visit: BoardVisit;
  width?: number;
  carried?: boolean;
  late?: boolean;
  chosen?: boolean;
}

/** A visit on the board. Short ones keep the family name and the code; everything else is in the hover card. */
export function VisitCard({ visit, width, carried, late, chosen }: CardProps) {
  const forecast = visit.state === "forecast" || visit.state === "held";
  return (
    <Box
      sx={{
        width: width ?? "100%",
        height: 46,
        pl: 1.25,
        pr: 0.5,
        pt: 1,
        bgcolor: forecast ? ink.paper : "#fff",
        border: `1px ${forecast ? "dashed" : "solid"} ${late || chosen ? (late ? ink.ember : ink.pine) : ink.line}`,
        outline: late || chosen ? `1.5px solid ${late ? ink.ember : ink.pine}` : "none",
        borderLeft: `4px solid ${hues[visit.hue]}`,
        borderRadius: "4px",
        overflow: "hidden",
        textAlign: "left",
        fontSize: visit.minutes < 60 && !carried ? 11.5 : 12.5,
        lineHeight: "17px",
        boxShadow: carried ? "0 4px 14px rgba(30,42,40,.25)" : "none",
      }}
    >
      <Box
        sx={{
          fontWeight: 700,
          whiteSpace: "nowrap",
          overflow: "hidden",
          textOverflow: "clip",
          color: forecast ? ink.ash : ink.ink,
        }}
      >
        <ShortName name={visit.customer} />
      </Box>
      <Box
        sx={{
          display: "flex",
          justifyContent: "space-between",
          color: ink.ash,
          whiteSpace: "nowrap",
          overflow: "hidden",
        }}
      >
        <Box component="span" sx={{ containerType: "inline-size", flex: 1 }}>
          {visit.code}
          <Box component="span" sx={{ display: "none", "@container (min-width: 84px)": { display: "inline" } }}>
            {` · ${visit.minutes} min`}
          </Box>
        </Box>
        <span aria-hidden="true">{stateGlyphs[visit.state]}</span>
      </Box>
    </Box>
  );
}

/** Pixels of a letter of the card, on the wide side. */
const letterWidth = 7.5;

/** The whole name where it fits; otherwise the family name, or its initials: never cut in the middle of a word. */
function ShortName({ name }: { name: string }) {
  const forms = shortForms(name);
  const widthOf = (form: string) => form.length * letterWidth;
  return (
    <Box sx={{ containerType: "inline-size" }}>
      {forms.map((form, i) => {
        const least = i === forms.length - 1 ? 0 : widthOf(form);
        const most = i === 0 ? 100_000 : widthOf(forms[i - 1]!) - 0.1;
        const fits = `@container (min-width: ${least}px) and (max-width: ${most}px)`;
        return (
          <Box key={form} component="span" sx={{ display: "none", [fits]: { display: "inline" } }}>
            {form}
          </Box>
        );
      })}
    </Box>
  );
}

export function DraggableVisit({
  visit,
  late,
  chosen,
  fixed,
  open,
}: {
  visit: BoardStop;
  late: boolean;
  chosen: boolean;
  fixed: boolean;
  open: () => void;
}) {
  const movable = !fixed && (visit.state === "promised" || visit.state === "forecast");
  const { attributes, listeners, setNodeRef, isDragging } = useDraggable({
    id: `visit ${visit.id} ${visit.arrives} ${visit.leaves}`,
    data: visit,
    disabled: !movable,
  });
  const words = `${visit.customer}, ${visit.service}, ${visit.site}. Promised ${windowWords(visit.windowFrom, visit.windowTo)}, planned ${clock(visit.arrives)} to ${clock(visit.leaves)}, ${durationWords(visit.minutes)}, ${visit.state}${late ? ", late" : ""}.`;
  return (
    <Tooltip title={words} placement="bottom">
      <Box
        ref={setNodeRef}
        {...attributes}
        {...(movable ? listeners : {})}
        data-visit={visit.id}
        role="button"
        tabIndex={0}
        aria-label={words}
        aria-disabled={undefined}
        onClick={open}
        onKeyDown={(event) => {
          if (event.key === "Enter") open();
          else if (movable) (listeners?.onKeyDown as ((e: React.KeyboardEvent) => void) | undefined)?.(event);
        }}
        sx={{
          cursor: movable ? "grab" : "pointer",
          opacity: isDragging ? 0.35 : 1,
          "&:focus-visible": { outline: `2px solid ${ink.lake}`, outlineOffset: 1 },
        }}
      >
        <VisitCard visit={visit} late={late} chosen={chosen} />
      </Box>
    </Tooltip>
  );
}

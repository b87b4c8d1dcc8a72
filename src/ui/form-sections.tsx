"use client";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import ButtonBase from "@mui/material/ButtonBase";
import Typography from "@mui/material/Typography";
import { createContext, type ReactNode, useContext, useEffect, useId, useMemo, useState } from "react";

interface Section {
  id: string;
  title: string;
  said: string | undefined;
}

const Sections = createContext<{ tell: (section: Section) => void; forget: (id: string) => void } | null>(null);

/** Fewer are seen at once anyway. */
const fewest = 3;

/** Around a form: its sections in one line that stays at the top, each with what is filled in there, a step away. */
export function WithSections({ children }: { children: ReactNode }) {
  const [sections, setSections] = useState<readonly Section[]>([]);
  const registry = useMemo(
    () => ({
      tell: (section: Section) =>
        setSections((all) =>
          all.some((s) => s.id === section.id)
            ? all.map((s) => (s.id === section.id ? section : s))
            : [...all, section].sort(byPlace),
        ),
      forget: (id: string) => setSections((all) => all.filter((s) => s.id !== id)),
    }),
    [],
  );
  return (
    <Sections.Provider value={registry}>
      {sections.length >= fewest && <SectionLine sections={sections} />}
      {children}
    </Sections.Provider>
  );
}

/** In the order in which they stand in the form. */
function byPlace(a: Section, b: Section): number {
  const [one, other] = [document.getElementById(a.id), document.getElementById(b.id)];
  if (!one || !other) return 0;
  return one.compareDocumentPosition(other) & Node.DOCUMENT_POSITION_FOLLOWING ? -1 : 1;
}

const SectionLine = ({ sections }: { sections: readonly Section[] }) => (
  <Box
    component="nav"
    aria-label="Sections"
    sx={{
      position: "sticky",
      top: 0,
      zIndex: 3,
      bgcolor: ink.paper,
      borderBottom: `1px solid ${ink.line}`,
      display: "flex",
      flexWrap: "wrap",
      gap: 1,
      py: 1,
    }}
  >
    {sections.map(({ id, title, said }) => (
      <ButtonBase
        key={id}
        onClick={() => document.getElementById(id)?.scrollIntoView({ behavior: "smooth", block: "start" })}
        sx={{
          flex: "none",
          display: "block",
          textAlign: "left",
          px: 2,
          py: 1,
          borderRadius: "6px",
          "&:hover, &:focus-visible": { bgcolor: ink.plaster },
        }}
      >
        <Box sx={{ fontSize: 13, fontWeight: 650 }}>{title}</Box>
        <Box sx={{ fontSize: 12, color: ink.ash }}>{said}</Box>
      </ButtonBase>
    ))}
  </Box>
);

/** A part of a form with a title of its own; `said` is what is filled in there, in a word. */
export function FormSection({
  title,
  note,
  said,
  children,
}: {
  title: string;
  note?: ReactNode;
  said?: string;
  children: ReactNode;
}) {
  const id = useId();
  const sections = useContext(Sections);
  useEffect(() => sections?.tell({ id, title, said }), [sections, id, title, said]);
  useEffect(() => () => sections?.forget(id), [sections, id]);
  return (
    <Box
      component="section"
      id={id}
      aria-label={title}
      sx={{ display: "grid", gap: 4, borderTop: `1px solid ${ink.line}`, pt: 4, scrollMarginTop: 64 }}
    >
      <Box>
        <Typography variant="h3">{title}</Typography>
        {note && <Box sx={{ color: ink.ash, fontSize: 14, mt: 1 }}>{note}</Box>}
      </Box>
      {children}
    </Box>
  );
}

"use client";
import { groupBy } from "@/core/group";
import { Code } from "@/ui/arch";
import { FormFrame } from "@/ui/form-frame";
import { Field } from "@/ui/form-parts";
import { hues, ink } from "@/ui/palette";
import { useKeptForm } from "@/ui/use-kept-form";
import ArrowDownward from "@mui/icons-material/ArrowDownward";
import ArrowUpward from "@mui/icons-material/ArrowUpward";
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import type { SetupData } from "../data";

interface Draft {
  categories: { name: string; was: string; services: number[] }[];
}

/** The order in which customers see categories and services. */
export function OrderForm({ data, saved }: { data: SetupData; saved: () => void }) {
  const categories = [...groupBy(data.services, (s) => s.category)].map(([name, services]) => ({
    name,
    was: name,
    services: services.map((s) => s.id),
  }));
  const { draft, set, wrong, round, frame } = useKeptForm<Draft, "order-services">({
    operation: "order-services",
    of: "order",
    from: { categories },
    input: (d) => d,
    name: () => "The order",
    saved,
  });
  const service = (id: number) => data.services.find((s) => s.id === id);
  const change = (at: number, category: Partial<Draft["categories"][number]>) =>
    set({ categories: draft.categories.map((c, i) => (i === at ? { ...c, ...category } : c)) });
  return (
    <FormFrame
      title="Categories and their order"
      note="As customers see them at the front door."
      key={round}
      {...frame}
    >
      {draft.categories.map((category, at) => (
        <Box
          key={category.was}
          role="group"
          aria-label={category.was}
          sx={{ borderTop: `1px solid ${ink.line}`, pt: 3 }}
        >
          <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start", mb: 2 }}>
            <Field
              label="Category"
              value={category.name}
              onChange={(e) => change(at, { name: e.target.value })}
              wrong={wrong(`/categories/${at}/name`)}
              sx={{ maxWidth: 320 }}
            />
            <Steps
              what={category.was}
              at={at}
              of={draft.categories.length}
              onMove={(to) => set({ categories: moved(draft.categories, at, to) })}
            />
          </Box>
          {category.services.map(
            (id, i) =>
              service(id) && (
                <Box key={id} sx={{ display: "flex", gap: 2, alignItems: "center", pl: 4 }}>
                  <Code code={service(id)!.code} colour={hues[service(id)!.hue]!} />
                  <Box sx={{ flex: 1 }}>{service(id)!.name}</Box>
                  <Steps
                    what={service(id)!.name}
                    at={i}
                    of={category.services.length}
                    onMove={(to) => change(at, { services: moved(category.services, i, to) })}
                  />
                </Box>
              ),
          )}
        </Box>
      ))}
    </FormFrame>
  );
}

function Steps({ what, at, of, onMove }: { what: string; at: number; of: number; onMove: (to: number) => void }) {
  return (
    <>
      <IconButton size="small" aria-label={`${what} earlier`} disabled={at === 0} onClick={() => onMove(at - 1)}>
        <ArrowUpward fontSize="small" />
      </IconButton>
      <IconButton size="small" aria-label={`${what} later`} disabled={at === of - 1} onClick={() => onMove(at + 1)}>
        <ArrowDownward fontSize="small" />
      </IconButton>
    </>
  );
}

function moved<T>(list: readonly T[], from: number, to: number): T[] {
  const rest = list.filter((_, i) => i !== from);
  return [...rest.slice(0, to), list[from]!, ...rest.slice(to)];
}

"use client";
import type { ViewOutput } from "@/api/client";
import { starsWords } from "@/core/messages/reviewing";
import { dateWords } from "@/core/time/words";
import { counted } from "@/core/words";
import { firstPage } from "@/ui/first-page";
import { LinkBox } from "@/ui/link-box";
import { useLive } from "@/ui/live";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import { Fact, SideSheet } from "@/ui/side-sheet";
import { useChange } from "@/ui/use-change";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Rating from "@mui/material/Rating";
import TextField from "@mui/material/TextField";
import type { GridColDef } from "@mui/x-data-grid";
import { useSearchParams } from "next/navigation";
import { useEffect, useMemo, useState } from "react";
import { useOffice } from "../office-context";

type Row = ViewOutput<"reviews">["rows"][number];
type Show = "all" | "trouble" | "unanswered";
const showNames: Record<Show, string> = { all: "all", trouble: "trouble that waits", unanswered: "not answered yet" };

/** What customers have said of the work: how we do on the whole, and each review with its answer. */
export function Reviews() {
  const [show, setShow] = useState<Show>("all");
  const [open, setOpen] = useState<Row | null>(null);
  const named = Number(useSearchParams().get("open"));
  // Somebody comes from Today, to one that waits.
  const { data: waiting } = useLive("reviews", named ? { ...firstPage<"reviews">("at", true), show: "trouble" } : null);
  useEffect(() => {
    const found = waiting?.rows.find(({ id }) => id === named);
    if (found) setOpen(found);
  }, [waiting, named]);
  const columns = useMemo(
    (): GridColDef<Row>[] => [
      {
        field: "at",
        headerName: "Day",
        width: 165,
        valueFormatter: (at: string) => dateWords(at),
      },
      {
        field: "rating",
        headerName: "Stars",
        width: 140,
        renderCell: ({ row }) => <Stars rating={row.rating} />,
      },
      { field: "customer", headerName: "Customer", width: 160 },
      { field: "what", headerName: "Work", width: 170, sortable: false },
      {
        field: "technicians",
        headerName: "Who came",
        width: 150,
        sortable: false,
        valueFormatter: (names: string[]) => names.join(", "),
      },
      {
        field: "praise",
        headerName: "Words",
        flex: 1,
        minWidth: 200,
        sortable: false,
        renderCell: ({ row }) => (
          <span>
            {row.trouble && (
              <Box component="span" sx={{ color: row.settledAt === null ? ink.ember : ink.ash, fontWeight: 600 }}>
                Not right: {row.trouble}{" "}
              </Box>
            )}
            {row.praise}
          </span>
        ),
      },
      {
        field: "repliedBy",
        headerName: "Answered",
        width: 130,
        sortable: false,
        valueGetter: (by: string | null, row) => by ?? (row.trouble && row.settledAt !== null ? "dealt with" : ""),
      },
    ],
    [],
  );
  return (
    <Box sx={{ flex: 1, display: "flex", minHeight: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <Means />
        <PagedTable<"reviews", Row>
          name="reviews"
          first={firstPage<"reviews">("at", true)}
          more={{ show }}
          columns={columns}
          searchLabel="Search reviews"
          empty={
            show === "all"
              ? "Nobody has said anything yet. When customers are asked is set under Set-up, Reviews."
              : "There is none."
          }
          onOpen={setOpen}
          beside={
            <TextField
              select
              size="small"
              label="Show"
              value={show}
              onChange={(e) => setShow(e.target.value as Show)}
              sx={{ width: 180 }}
            >
              {Object.entries(showNames).map(([value, name]) => (
                <MenuItem key={value} value={value}>
                  {name}
                </MenuItem>
              ))}
            </TextField>
          }
        />
      </Box>
      {open && <Sheet key={open.id} row={open} onClose={() => setOpen(null)} />}
    </Box>
  );
}

const Stars = ({ rating }: { rating: number }) => (
  <Rating value={rating} readOnly size="small" getLabelText={starsWords} sx={{ color: ink.honey }} />
);

const spans = { 91: "three months", 364: "a year", 3650: "ten years" } as const;

/** The mean on the whole, by technician and by service. */
function Means() {
  const [days, setDays] = useState(364);
  const { data } = useLive("review-figures", { days });
  if (!data || data.asked + data.answered === 0) return null;
  const lists = [
    { name: "By technician", rows: data.technicians },
    { name: "By service", rows: data.services },
  ];
  return (
    <Box
      component="section"
      aria-label="How we do"
      sx={{ px: 6, pt: 4, pb: 2, display: "flex", gap: 8, flexWrap: "wrap", alignItems: "flex-start" }}
    >
      <Box>
        <Box sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1.1 }}>{data.mean?.toFixed(1) ?? "–"}</Box>
        <Box sx={{ color: ink.ash }}>
          of 5, from {counted(data.answered, "review")} of {data.asked} who were asked
        </Box>
        {data.trouble > 0 && <Box sx={{ color: ink.ash }}>{counted(data.trouble, "review")} told of trouble</Box>}
      </Box>
      {lists.map(({ name, rows }) => (
        <Box key={name} role="group" aria-label={name} sx={{ minWidth: 190 }}>
          <Box sx={{ fontWeight: 600 }}>{name}</Box>
          {rows.slice(0, 5).map((row) => (
            <Box key={row.name} sx={{ display: "flex", gap: 3 }}>
              <Box sx={{ flex: 1 }}>{row.name}</Box>
              <span>
                <b>{row.mean.toFixed(1)}</b> <span style={{ color: ink.ash }}>({row.n})</span>
              </span>
            </Box>
          ))}
        </Box>
      ))}
      <TextField
        select
        size="small"
        label="Of the last"
        value={days}
        onChange={(e) => setDays(Number(e.target.value))}
        sx={{ width: 150, ml: "auto" }}
      >
        {Object.entries(spans).map(([value, name]) => (
          <MenuItem key={value} value={value}>
            {name}
          </MenuItem>
        ))}
      </TextField>
    </Box>
  );
}

/** One review: what was said, our answer, and whether trouble is dealt with. */
function Sheet({ row, onClose }: { row: Row; onClose: () => void }) {
  const { permissions } = useOffice().person;
  const mayAnswer = permissions.includes("board.change") && permissions.includes("visits.all");
  const [words, setWords] = useState("");
  const reply = useChange("reply-to-review", { then: onClose });
  const settle = useChange("settle-review", { then: onClose });
  const isOpen = row.trouble !== "" && row.settledAt === null;
  return (
    <SideSheet title={`${row.customer}, ${starsWords(row.rating)}`} onClose={onClose}>
      <Fact name="Work">
        {row.what}
        {row.date && `, ${dateWords(row.date)}`}
      </Fact>
      {row.technicians.length > 0 && <Fact name="Who came">{row.technicians.join(", ")}</Fact>}
      <LinkBox href={`/customers/${row.customerId}`} sx={{ color: ink.lake }}>
        The customer
      </LinkBox>
      {row.praise && <Box sx={{ mt: 3, whiteSpace: "pre-wrap" }}>{row.praise}</Box>}
      {row.trouble && (
        <Box sx={{ mt: 3, whiteSpace: "pre-wrap" }}>
          <Box sx={{ fontWeight: 600, color: isOpen ? ink.ember : ink.ash }}>
            Not right{row.settledAt !== null && ", dealt with"}
          </Box>
          {row.trouble}
        </Box>
      )}
      {row.wentTo.length > 0 && <Fact name="Went on to">{row.wentTo.join(", ")}</Fact>}
      {row.reply ? (
        <Box sx={{ mt: 4, pl: 3, borderLeft: `3px solid ${ink.line}`, whiteSpace: "pre-wrap" }}>
          <b>{row.repliedBy}</b>
          <br />
          {row.reply}
        </Box>
      ) : (
        mayAnswer && (
          <Box sx={{ mt: 4, display: "grid", gap: 2 }}>
            <TextField
              label={`Answer ${row.customer}`}
              multiline
              minRows={3}
              value={words}
              onChange={(e) => setWords(e.target.value)}
              error={!!reply.wrong("/words")}
              helperText={reply.wrong("/words") ?? "They get it by email or text, and read it on their page"}
            />
            <Button
              variant="contained"
              disabled={reply.busy || !words.trim()}
              sx={{ justifySelf: "start" }}
              onClick={() => void reply.send({ id: row.id, words })}
            >
              Send the answer
            </Button>
          </Box>
        )
      )}
      {mayAnswer && row.trouble && (
        <Button disabled={settle.busy} sx={{ mt: 3 }} onClick={() => void settle.send({ id: row.id, settled: isOpen })}>
          {isOpen ? "Dealt with" : "Open it again"}
        </Button>
      )}
    </SideSheet>
  );
}

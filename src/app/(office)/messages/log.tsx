"use client";
import type { ViewOutput } from "@/api/client";
import { type Channel, channelNames, channels } from "@/core/messages/purposes";
import { type MessageState, messageStates } from "@/core/messages/states";
import { firstPage } from "@/ui/first-page";
import { PagedTable } from "@/ui/paged-table";
import { ink } from "@/ui/palette";
import { SideSheet } from "@/ui/side-sheet";
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { GridColDef } from "@mui/x-data-grid";
import { useMemo, useState } from "react";

type Row = ViewOutput<"message-log">["rows"][number];

const stateWords = (state: MessageState): string => (state === "dropped" ? "not sent" : state);
/** What was written, with its links as they may be shown. */
const bodyWords = (body: string): string => body.replace(/\{\{\w+\}\}/g, "[their link]");

/** Every message that was written, and what became of it. */
export function Log() {
  const [channel, setChannel] = useState<Channel | "">("");
  const [state, setState] = useState<MessageState | "">("");
  const [open, setOpen] = useState<Row | null>(null);
  const columns = useMemo(
    (): GridColDef<Row>[] => [
      { field: "at", headerName: "Written", width: 160 },
      { field: "to", headerName: "To", flex: 1, minWidth: 150 },
      { field: "occasion", headerName: "Occasion", width: 170 },
      { field: "channel", headerName: "Channel", width: 100, valueFormatter: (one: Channel) => channelNames[one] },
      {
        field: "subject",
        headerName: "Words",
        flex: 2,
        minWidth: 200,
        sortable: false,
        valueGetter: (subject: string, row) => subject || row.body,
      },
      {
        field: "state",
        headerName: "State",
        width: 190,
        renderCell: ({ row }) => (
          <Box component="span" sx={{ color: messageStates.allows("lost", row.state) ? ink.ember : "inherit" }}>
            {stateWords(row.state)}
            {row.problem && `: ${row.problem}`}
          </Box>
        ),
      },
    ],
    [],
  );
  return (
    <Box sx={{ pt: 3, flex: 1, display: "flex", minHeight: 0 }}>
      <Box sx={{ flex: 1, minWidth: 0, display: "flex", flexDirection: "column" }}>
        <PagedTable<"message-log", Row>
          name="message-log"
          first={firstPage<"message-log">("at", true)}
          more={{ channel: channel || null, state: state || null }}
          columns={columns}
          searchLabel="Search messages"
          empty="Nothing has been sent yet."
          file={[
            { words: "Written", of: (row) => row.at },
            { words: "To", of: (row) => row.to },
            { words: "Address", of: (row) => row.recipient },
            { words: "Occasion", of: (row) => row.occasion },
            { words: "Channel", of: (row) => channelNames[row.channel] },
            { words: "Subject", of: (row) => row.subject },
            { words: "Text", of: (row) => bodyWords(row.body) },
            { words: "State", of: (row) => stateWords(row.state) },
            { words: "Problem", of: (row) => row.problem },
            { words: "Parts", of: (row) => row.parts },
          ]}
          onOpen={setOpen}
          beside={
            <>
              <TextField
                select
                size="small"
                label="Channel"
                value={channel}
                onChange={(e) => setChannel(e.target.value as Channel | "")}
                sx={{ width: 130 }}
              >
                <MenuItem value="">all</MenuItem>
                {channels.map((one) => (
                  <MenuItem key={one} value={one}>
                    {channelNames[one]}
                  </MenuItem>
                ))}
              </TextField>
              <TextField
                select
                size="small"
                label="State"
                value={state}
                onChange={(e) => setState(e.target.value as MessageState | "")}
                sx={{ width: 140 }}
              >
                <MenuItem value="">all</MenuItem>
                {messageStates.states.map((one) => (
                  <MenuItem key={one} value={one}>
                    {stateWords(one)}
                  </MenuItem>
                ))}
              </TextField>
            </>
          }
        />
      </Box>
      {open && (
        <SideSheet title={open.subject || open.occasion} onClose={() => setOpen(null)}>
          <Box sx={{ color: ink.ash }}>
            {channelNames[open.channel]} to {open.recipient}, {open.at}
          </Box>
          <Box sx={{ whiteSpace: "pre-wrap", mt: 3, overflowWrap: "anywhere" }}>{bodyWords(open.body)}</Box>
        </SideSheet>
      )}
    </Box>
  );
}

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
import { ExportList } from "../money/export-list";

type Row = ViewOutput<"message-log">["rows"][number];

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
            {row.state === "dropped" ? "not sent" : row.state}
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
                    {one === "dropped" ? "not sent" : one}
                  </MenuItem>
                ))}
              </TextField>
              <ExportList
                name="message-log"
                asked={{ sort: "at", descending: true, search: "", channel: channel || null, state: state || null }}
                columns={[
                  { words: "Written", of: (row) => row.at },
                  { words: "To", of: (row) => row.to },
                  { words: "Address", of: (row) => row.recipient },
                  { words: "Occasion", of: (row) => row.occasion },
                  { words: "Channel", of: (row) => channelNames[row.channel] },
                  { words: "Subject", of: (row) => row.subject },
                  { words: "Text", of: (row) => row.body },
                  { words: "State", of: (row) => row.state },
                  { words: "Problem", of: (row) => row.problem },
                  { words: "Parts", of: (row) => row.parts },
                ]}
              />
            </>
          }
        />
      </Box>
      {open && (
        <SideSheet title={open.subject || open.occasion} onClose={() => setOpen(null)}>
          <Box sx={{ color: ink.ash }}>
            {channelNames[open.channel]} to {open.recipient}, {open.at}
          </Box>
          <Box sx={{ whiteSpace: "pre-wrap", mt: 3, overflowWrap: "anywhere" }}>
            {open.body.replace(/\{\{\w+\}\}/g, "[their link]")}
          </Box>
        </SideSheet>
      )}
    </Box>
  );
}

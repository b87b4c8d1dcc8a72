"use client";
import { change, type ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import type { Match } from "@/core/money/bank-matching";
import { dayShort } from "@/core/time/words";
import { firstPage } from "@/ui/first-page";
import { useLive, useRefresh } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useUndo } from "@/ui/use-undo";
import { useWork, WorkProgress } from "@/ui/use-work";
import { bankShown, type BankShown } from "./data";
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Pagination from "@mui/material/Pagination";
import Skeleton from "@mui/material/Skeleton";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import { useSnackbar } from "notistack";
import { useDeferredValue, useEffect, useRef, useState } from "react";

type Line = ViewOutput<"bank-lines">["rows"][number];
type Proposal = Line["proposals"][number];
type OwnAccount = ViewOutput<"bank-lines">["accounts"][number];
const size = 25;

/** Lines of the bank's statements: each that is open with what it may be, taken by a key or a click. */
export function Bank({
  show,
  onShow,
  mayChange,
  onInvoice,
}: {
  show: BankShown;
  onShow: (show: BankShown) => void;
  mayChange: boolean;
  onInvoice: (id: number) => void;
}) {
  const [asked, setAsked] = useState({ ...firstPage<"bank-lines">("date"), size });
  const search = useDeferredValue(asked.search);
  const { data, problem } = useLive("bank-lines", { ...asked, search, show });
  const [chosen, setChosen] = useState(0);
  const deal = useDealing();
  const rows = data?.rows ?? [];
  const at = Math.min(chosen, Math.max(0, rows.length - 1));
  const take = (line: Line, proposal: Proposal | undefined) => mayChange && proposal && void deal.match(line, proposal);

  const onKey = (event: React.KeyboardEvent) => {
    const typing = event.target instanceof HTMLElement && event.target.closest("input, textarea, button, a");
    if (typing || event.ctrlKey || event.metaKey || event.altKey) return;
    const line = rows[at];
    const nth = Number(event.key);
    if (event.key === "ArrowDown") setChosen(Math.min(rows.length - 1, at + 1));
    else if (event.key === "ArrowUp") setChosen(Math.max(0, at - 1));
    else if (line && event.key === "Enter") take(line, line.proposals[0]);
    else if (line && nth >= 1) take(line, line.proposals[nth - 1]);
    else return;
    event.preventDefault();
  };
  return (
    <Box sx={{ px: 6, pb: 6, overflowY: "auto" }}>
      <Box sx={{ display: "flex", gap: 4, alignItems: "center", flexWrap: "wrap", mb: 2, pt: 2 }}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={show}
          onChange={(_, to: BankShown | null) => {
            if (!to) return;
            onShow(to);
            setAsked({ ...asked, page: 0, descending: to !== "open" });
            setChosen(0);
          }}
          aria-label="Which lines"
        >
          {bankShown.map((one) => (
            <ToggleButton key={one} value={one}>
              {one}
              {one === "open" && data && ` (${data.open})`}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <TextField
          size="small"
          label="Search lines"
          value={asked.search}
          onChange={(e) => setAsked({ ...asked, search: e.target.value, page: 0 })}
          sx={{ width: 240 }}
        />
        <Box sx={{ flex: 1 }} />
        {mayChange && !deal.work.busy && <TakeSure rows={rows} onTake={deal.matchMany} />}
        <WorkProgress work={deal.work} />
        {mayChange && (
          <Button variant="outlined" href="/import?kind=bank+lines">
            Read a bank file
          </Button>
        )}
      </Box>
      {deal.work.problem && (
        <Alert severity="warning" sx={{ mb: 2 }}>
          {deal.work.problem}
        </Alert>
      )}
      {problem && <Alert severity="warning">{problem.sentence}</Alert>}
      {!data && !problem && <Skeleton variant="rounded" height={240} />}
      {data?.count === 0 && <Empty show={show} searched={search !== ""} />}
      {rows.length > 0 && (
        <Box
          role="group"
          tabIndex={0}
          aria-label="Lines of the bank"
          onKeyDown={onKey}
          sx={{ outline: "none", "&:focus-visible .chosen": { outline: `2px solid ${ink.pine}`, outlineOffset: -2 } }}
        >
          {rows.map((line, i) => (
            <LineRow
              key={line.id}
              line={line}
              currency={data!.currency}
              isChosen={i === at && show === "open"}
              mayChange={mayChange}
              busy={deal.busy}
              onTake={(proposal) => take(line, proposal)}
              accounts={data!.accounts}
              onAside={(why) => void deal.setAside(line, why)}
              onPost={(accountId) => void deal.post(line, accountId)}
              onReopen={() => void deal.reopen(line)}
              onInvoice={onInvoice}
            />
          ))}
        </Box>
      )}
      {data && data.count > size && (
        <Pagination
          count={Math.ceil(data.count / size)}
          page={asked.page + 1}
          onChange={(_, page) => setAsked({ ...asked, page: page - 1 })}
          sx={{ mt: 3 }}
        />
      )}
      {show === "open" && rows.length > 0 && mayChange && (
        <Box sx={{ color: ink.ash, fontSize: 14, mt: 3 }}>
          By keyboard: ↑ and ↓ choose a line, Enter takes its first proposal, 1 to 4 another.
        </Box>
      )}
    </Box>
  );
}

const Empty = ({ show, searched }: { show: BankShown; searched: boolean }) => (
  <Box sx={{ color: ink.ash, maxWidth: 560, py: 3 }}>
    {searched
      ? "Nothing is found. Try fewer letters."
      : show === "open"
        ? "No line waits. Read a file from your bank, as CAMT.053 or CSV: what came in finds its invoices, and payouts of the card service are checked off."
        : "No lines here."}
  </Box>
);

/** What is sure on this page, taken at once. */
function TakeSure({ rows, onTake }: { rows: readonly Line[]; onTake: (lines: readonly Line[]) => void }) {
  const sure = rows.filter(({ proposals }) => proposals[0]?.sure === "sure" && proposals[1]?.sure !== "sure");
  if (sure.length < 2) return null;
  return (
    <Button variant="contained" onClick={() => onTake(sure)}>
      Take the {sure.length} sure ones
    </Button>
  );
}

const sureInk = { sure: ink.moss, likely: ink.ink, possible: ink.ash };

function LineRow({
  line,
  currency,
  isChosen,
  mayChange,
  busy,
  accounts,
  onTake,
  onAside,
  onPost,
  onReopen,
  onInvoice,
}: {
  line: Line;
  currency: string;
  isChosen: boolean;
  mayChange: boolean;
  busy: boolean;
  accounts: readonly OwnAccount[];
  onTake: (proposal: Proposal) => void;
  onAside: (why: string) => void;
  onPost: (accountId: number) => void;
  onReopen: () => void;
  onInvoice: (id: number) => void;
}) {
  const [more, setMore] = useState(false);
  const row = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (isChosen) row.current?.scrollIntoView({ block: "nearest" });
  }, [isChosen]);
  return (
    <Box
      ref={row}
      className={isChosen ? "chosen" : undefined}
      sx={{
        display: "grid",
        gridTemplateColumns: "92px 108px minmax(160px, 1fr) minmax(320px, 1.2fr)",
        gap: 3,
        py: 2,
        px: 2,
        borderTop: `1px solid ${ink.line}`,
        ...(isChosen && { bgcolor: "#fff", boxShadow: `inset 3px 0 0 ${ink.pine}` }),
        fontSize: 14.5,
      }}
    >
      <span>{dayShort(line.date)}</span>
      <Box sx={{ textAlign: "right", fontWeight: 650, color: line.amountMinor < 0 ? ink.ember : ink.ink }}>
        {moneyWords(line.amountMinor, currency)}
      </Box>
      <Box sx={{ minWidth: 0 }}>
        <b>{line.name || "no name"}</b>
        <Box sx={{ color: ink.ash, overflowWrap: "anywhere" }}>{line.words}</Box>
      </Box>
      <Box sx={{ display: "grid", gap: 1, justifyItems: "start" }}>
        {line.is && (
          <span>
            <Box component="span" sx={{ color: ink.moss, fontWeight: 650 }}>
              ✓{" "}
            </Box>
            {line.is.invoiceId === null ? (
              line.is.words
            ) : (
              <Button size="small" onClick={() => onInvoice(line.is!.invoiceId!)}>
                {line.is.words}
              </Button>
            )}
          </span>
        )}
        {line.state === "set aside" && <span>set aside: {line.why}</span>}
        {line.mayReopen && mayChange && (
          <Button size="small" disabled={busy} onClick={onReopen}>
            This was wrong
          </Button>
        )}
        {line.proposals.map((proposal, i) => (
          <Button
            key={i}
            size="small"
            variant={i === 0 && proposal.sure !== "possible" ? "outlined" : "text"}
            disabled={busy || !mayChange}
            onClick={() => onTake(proposal)}
            sx={{ textAlign: "left", justifyContent: "start", color: sureInk[proposal.sure] }}
          >
            <span>
              {i + 1}. {proposal.words}
              <Box component="span" sx={{ color: ink.ash, ml: 1.5, fontWeight: 400 }}>
                {proposal.sure}: {proposal.why.join(", ")}
              </Box>
            </span>
          </Button>
        ))}
        {line.state === "open" && line.proposals.length === 0 && (
          <Box component="span" sx={{ color: ink.ash }}>
            Nothing of ours comes to it.
          </Box>
        )}
        {line.state === "open" && mayChange && (
          <Button size="small" onClick={() => setMore(!more)} aria-expanded={more}>
            Something else…
          </Button>
        )}
        {more && (
          <SomethingElse
            line={line}
            currency={currency}
            busy={busy}
            accounts={accounts}
            onTake={onTake}
            onAside={onAside}
            onPost={onPost}
          />
        )}
      </Box>
    </Box>
  );
}

/** Another invoice, looked for; or none of ours, with a word about what it is. */
function SomethingElse({
  line,
  currency,
  busy,
  accounts,
  onTake,
  onAside,
  onPost,
}: {
  line: Line;
  currency: string;
  busy: boolean;
  accounts: readonly OwnAccount[];
  onTake: (proposal: Proposal) => void;
  onAside: (why: string) => void;
  onPost: (accountId: number) => void;
}) {
  const [typed, setTyped] = useState("");
  const [why, setWhy] = useState("");
  const search = useDeferredValue(typed);
  const { data } = useLive("invoices", { ...firstPage<"invoices">("dueDate"), size: 8, show: "open", search });
  const pays = (invoice: ViewOutput<"invoices">["rows"][number]): Match => ({
    kind: "invoices",
    customerId: invoice.customerId,
    invoices: [{ invoiceId: invoice.id, amountMinor: Math.min(line.amountMinor, invoice.openMinor) }],
  });
  return (
    <Box sx={{ display: "grid", gap: 2, width: "100%", maxWidth: 420 }}>
      {line.amountMinor > 0 && (
        <Autocomplete
          size="small"
          options={data?.rows ?? []}
          filterOptions={(all) => all}
          getOptionLabel={(i) => `${i.number}, ${i.customer}, ${moneyWords(i.openMinor, currency)} open`}
          getOptionKey={(i) => i.id}
          inputValue={typed}
          onInputChange={(_, text) => setTyped(text)}
          value={null}
          disabled={busy}
          onChange={(_, invoice) =>
            invoice &&
            onTake({ match: pays(invoice), sure: "possible", why: [], words: `${invoice.customer}: ${invoice.number}` })
          }
          noOptionsText="No open invoice is called so"
          renderInput={(params) => (
            <TextField {...params} label="An open invoice" helperText="By number, name or amount" />
          )}
        />
      )}
      <PostTo accounts={accounts} busy={busy} onPost={onPost} />
      <Box sx={{ display: "flex", gap: 2, alignItems: "start" }}>
        <TextField
          size="small"
          label="Nothing to book: what is it?"
          value={why}
          onChange={(e) => setWhy(e.target.value)}
          slotProps={{ htmlInput: { maxLength: 200 } }}
          fullWidth
        />
        <Button
          variant="outlined"
          disabled={busy || why.trim().length < 2}
          onClick={() => onAside(why)}
          sx={{ flex: "none", height: 40 }}
        >
          Set aside
        </Button>
      </Box>
    </Box>
  );
}

/** An account of one's own on which the line is posted: one there is, or a new one by its name. */
function PostTo({
  accounts,
  busy,
  onPost,
}: {
  accounts: readonly OwnAccount[];
  busy: boolean;
  onPost: (accountId: number) => void;
}) {
  const [typed, setTyped] = useState("");
  const { send, busy: saving, wrong } = useChange("save-own-account");
  const known = accounts.find(({ name }) => name.toLowerCase() === typed.trim().toLowerCase());
  const post = async () => {
    if (known) return onPost(known.id);
    const made = await send({ id: null, name: typed, number: "", active: true });
    if (made) onPost(made.value.id);
  };
  return (
    <Box sx={{ display: "flex", gap: 2, alignItems: "start" }}>
      <Autocomplete
        freeSolo
        size="small"
        options={accounts.map(({ name }) => name)}
        inputValue={typed}
        onInputChange={(_, text) => setTyped(text)}
        fullWidth
        renderInput={(params) => (
          <TextField
            {...params}
            label="No payment: on which account?"
            error={!!wrong("/name")}
            helperText={wrong("/name") ?? "The bank’s fees, rent, interest; a new name makes one"}
          />
        )}
      />
      <Button
        variant="outlined"
        disabled={busy || saving || typed.trim().length < 2}
        onClick={() => void post()}
        sx={{ flex: "none", height: 40 }}
      >
        Post
      </Button>
    </Box>
  );
}

/** Deals with lines: matched, set aside or open again, each with a way back. */
function useDealing() {
  const match = useChange("match-bank-line");
  const aside = useChange("set-aside-bank-line");
  const posting = useChange("post-bank-line");
  const reopen = useChange("reopen-bank-line");
  const sayWithUndo = useUndo();
  const { enqueueSnackbar } = useSnackbar();
  const refresh = useRefresh();
  const work = useWork();
  const back = (line: Line) => reopen.send({ lineId: line.id });
  return {
    busy: match.busy || aside.busy || posting.busy || reopen.busy || work.busy,
    work,
    async match(line: Line, proposal: Proposal) {
      if (!(await match.send({ lineId: line.id, match: proposal.match }))) return;
      if (proposal.match.kind === "payout" || proposal.match.kind === "returned")
        enqueueSnackbar(proposal.match.kind === "returned" ? proposal.words : `${proposal.words} is in the bank`, {
          variant: "success",
        });
      else sayWithUndo(`Taken: ${proposal.words}`, () => back(line));
    },
    matchMany: (lines: readonly Line[]) =>
      void work.through("Taken", async (step) => {
        const wrong: string[] = [];
        for (const [i, line] of lines.entries()) {
          if (step(i, lines.length)) break;
          const done = await change("match-bank-line", { lineId: line.id, match: line.proposals[0]!.match });
          if (!done.ok) wrong.push(`${line.name}: ${done.problem.sentence}`);
        }
        refresh();
        return wrong.length ? wrong.join(" ") : null;
      }),
    async setAside(line: Line, why: string) {
      if (await aside.send({ lineId: line.id, why })) sayWithUndo("Set aside", () => back(line));
    },
    async post(line: Line, accountId: number) {
      if (await posting.send({ lineId: line.id, accountId })) sayWithUndo("Posted", () => back(line));
    },
    reopen: back,
  };
}

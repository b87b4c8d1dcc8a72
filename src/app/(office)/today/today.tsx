"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { counted } from "@/core/words";
import { dayWords, windowWords } from "@/core/time/words";
import { LinkBox } from "@/ui/link-box";
import { useShown } from "@/ui/live";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import type { NeedKind } from "@/core/today/urgency";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useSnackbar } from "notistack";
import { DayStrip } from "../day-strip";
import { Top } from "../top";

const signs: Record<NeedKind, string> = {
  danger: "!",
  "nobody home": "⊘",
  "not closed": "◌",
  incoming: "?",
  unplaced: "○",
  late: "◑",
  "failed card": "✕",
  overdue: "€",
  bounced: "↩",
  expiring: "◔",
  reply: "✉",
  unconfirmed: "?",
  stuck: "!",
  hoarding: "!",
  dispute: "⚖",
  "not collected": "✕",
  objection: "⚖",
  "paid twice": "€",
  unreachable: "☎",
  unkept: "⚠",
  "broken promise": "€",
  bank: "≡",
  trouble: "!",
};
const urgent: readonly NeedKind[] = [
  "danger",
  "nobody home",
  "not closed",
  "incoming",
  "late",
  "failed card",
  "not collected",
  "objection",
  "unreachable",
  "unkept",
  "broken promise",
  "dispute",
  "trouble",
  "stuck",
  "unplaced",
  "hoarding",
];

const bookedWords = ({ booked, currency }: Pick<ViewOutput<"today">, "booked" | "currency">): string =>
  booked
    ? [`${booked.n} booked in the last 7 days`, booked.minor !== null && moneyWords(booked.minor, currency)]
        .filter(Boolean)
        .join(", ")
    : "";

/** The first screen: what needs a person now, and how the day goes. */
export function Today() {
  const view = useShown("today", {}, 60_000);
  const strip = useShown("day-strip", {}, 60_000);
  const waiting = view.needs.reduce((sum, { n = 1 }) => sum + n, 0);
  return (
    <>
      <Top title={dayWords(view.today)} sum={bookedWords(view)} />
      <DayStrip days={strip} chosen={view.today} />
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 7fr) minmax(0, 5fr)", gap: 10, px: 6, py: 5 }}>
        <Box component="section">
          <Typography variant="h2" sx={{ mb: 2 }}>
            {waiting ? `Needs a person · ${waiting}` : "Nothing needs a person"}
          </Typography>
          {view.isFresh && (
            <LinkBox
              href="/setup/start"
              sx={{
                display: "block",
                p: 4,
                mb: 4,
                border: `2px solid ${ink.pine}`,
                borderRadius: "6px",
                textDecoration: "none",
                color: ink.ink,
                bgcolor: "#fff",
              }}
            >
              <b>Set the business up</b>
              <Box sx={{ color: ink.ash, mt: 1 }}>
                Six steps to the first booking, with services of your trade to begin with. Ten minutes are enough.
              </Box>
            </LinkBox>
          )}
          {view.needs.length === 0 && (
            <Typography sx={{ color: ink.ash }}>
              Visits without a technician, failed cards and what is late come here.
            </Typography>
          )}
          {view.needs.map((need, i) => (
            <Need key={i} need={need} />
          ))}
        </Box>
        <Team view={view} />
      </Box>
    </>
  );
}

type View = ViewOutput<"today">;

/** One thing that needs a person: where to see it, and what can be done at once. */
function Need({ need }: { need: View["needs"][number] }) {
  const { enqueueSnackbar } = useSnackbar();
  const giveBack = useChange("give-back-room", {
    then: ({ holds, bookings }) =>
      enqueueSnackbar(`Given back: ${counted(holds, "hold")}, ${counted(bookings, "booking")}`, { variant: "success" }),
  });
  const { givesBack, lost, charge, again, unkept } = need;
  const said = (words: string) => () => enqueueSnackbar(words, { variant: "success" });
  const settle = useChange("settle-lost", { then: said("Done") });
  const decide = useChange("decide-charge", { then: said("Written down") });
  const settleUnkept = useChange("settle-unkept", { then: said("Settled") });
  const retry = useChange("try-again", { then: said("It is tried again at once") });
  return (
    <Box sx={{ display: "flex", alignItems: "center", flexWrap: "wrap", borderTop: `1px solid ${ink.line}` }}>
      <LinkBox
        href={need.href}
        sx={{
          display: "flex",
          gap: 4,
          py: 2.25,
          flex: "1 1 320px",
          textDecoration: "none",
          color: ink.ink,
          "&:hover": { bgcolor: ink.plaster },
        }}
      >
        <Box
          aria-hidden="true"
          sx={{
            flex: "0 0 20px",
            textAlign: "center",
            color: urgent.includes(need.kind) ? ink.ember : ink.ash,
            fontWeight: 700,
          }}
        >
          {signs[need.kind]}
        </Box>
        <Box sx={{ minWidth: 0 }}>
          <Box sx={{ fontWeight: 650 }}>{need.words}</Box>
          <Box sx={{ color: ink.ash, fontSize: 14 }}>{need.detail}</Box>
        </Box>
      </LinkBox>

      {lost && (
        <Actions
          busy={settle.busy}
          actions={[
            ["Send again", () => settle.send({ messageId: lost.messageId, how: "again" })],
            ...(lost.next
              ? [[`Send by ${ways[lost.next]}`, () => settle.send({ messageId: lost.messageId, how: "next" })] as const]
              : []),
            ["They know", () => settle.send({ messageId: lost.messageId, how: "told" })],
          ]}
        />
      )}
      {unkept && (
        <Actions
          busy={settleUnkept.busy}
          actions={[
            ["Keep it all the same", () => settleUnkept.send({ visitId: unkept.visitId, how: "keep" })],
            ["To the tray", () => settleUnkept.send({ visitId: unkept.visitId, how: "tray" })],
            ...(unkept.mayGoToOthers
              ? [
                  [
                    "To whoever can keep it",
                    () => settleUnkept.send({ visitId: unkept.visitId, how: "other" }),
                  ] as const,
                ]
              : []),
          ]}
        />
      )}
      {charge && (
        <Actions
          busy={decide.busy}
          actions={[
            ["It was charged", () => decide.send({ ...charge, charged: true })],
            ["It was not", () => decide.send({ ...charge, charged: false })],
          ]}
        />
      )}
      {again && <Actions busy={retry.busy} actions={[["Try again", () => retry.send(again)]]} />}
      {givesBack && (
        <Button
          variant="outlined"
          size="small"
          disabled={giveBack.busy}
          onClick={() => void giveBack.send(givesBack)}
          sx={{ flex: "none" }}
        >
          Give all of it back
        </Button>
      )}
    </Box>
  );
}

const ways = { mail: "email", text: "text", voice: "a call" } as const;

/** What can be done about something at once. */
function Actions({
  actions,
  busy,
}: {
  actions: readonly (readonly [string, () => Promise<unknown>])[];
  busy: boolean;
}) {
  return (
    <Box sx={{ display: "flex", gap: 2, flex: "0 0 100%", pl: 9, pb: 2.5 }}>
      {actions.map(([words, act]) => (
        <Button key={words} variant="outlined" size="small" disabled={busy} onClick={() => void act()}>
          {words}
        </Button>
      ))}
    </Box>
  );
}

/** How the day of each technician goes. */
function Team({ view }: { view: View }) {
  return (
    <Box component="section">
      <Typography variant="h2" sx={{ mb: 2 }}>
        The team today
      </Typography>
      {view.technicians.map((t) => (
        <Box key={t.id} sx={{ display: "flex", gap: 4, py: 2.25, borderTop: `1px solid ${ink.line}` }}>
          <Box sx={{ flex: 1, minWidth: 0 }}>
            <Box sx={{ fontWeight: 650 }}>{t.name}</Box>
            <Box sx={{ color: ink.ash, fontSize: 14 }}>
              {t.off ??
                (t.next
                  ? `next: ${t.next}, promised ${windowWords(t.nextFrom!, t.nextTo!)}`
                  : t.all_visits
                    ? "done for today"
                    : "no visits")}
            </Box>
          </Box>
          <Box sx={{ textAlign: "right", whiteSpace: "nowrap" }}>
            {t.all_visits > 0 && `${t.done} of ${t.all_visits} done`}
          </Box>
        </Box>
      ))}
    </Box>
  );
}

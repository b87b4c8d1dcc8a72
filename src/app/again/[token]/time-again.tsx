"use client";
import type { ViewOutput } from "@/api/client";
import { moneyWords } from "@/core/money/amounts";
import { durationWords } from "@/core/time/words";
import { DoorFact, DoorPage } from "@/ui/door-page";
import { SaidWith } from "@/ui/said-with";
import { TakeWindow } from "@/ui/take-window";
import { useChange } from "@/ui/use-change";
import { useView } from "@/ui/use-view";
import type { PickedWindow } from "@/ui/window-picker";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useRouter } from "next/navigation";
import { useState } from "react";

type View = ViewOutput<"ask">;
type Answer = "not this time" | "call me";

const big = { minHeight: 52, fontSize: 17 };
const titles: Record<View["state"], string> = {
  asked: "Is it time again?",
  "for us": "Is it time again?",
  booked: "You are booked",
  declined: "Not this time",
  closed: "",
};

/** What a customer who is asked first reads: what is due, the windows that can be kept, and the two other answers. */
export function TimeAgain({ view, token }: { view: View; token: string }) {
  const { business } = view;
  return (
    <DoorPage look={view.look} business={business}>
      <Box role="status">
        <Typography variant="h1">{titles[view.state]}</Typography>
      </Box>
      {view.state === "declined" && (
        <Typography sx={{ mt: 3 }}>
          Thank you for telling us. Should you change your mind, choose a time below.
        </Typography>
      )}
      <Box sx={{ mt: 4 }}>
        <DoorFact name="What">
          {view.what}, about {durationWords(view.minutes)}
        </DoorFact>
        <DoorFact name="Where">{view.address}</DoorFact>
        {view.state !== "booked" && <DoorFact name="Due">around {view.around}</DoorFact>}
        {view.totalMinor !== null && (
          <DoorFact name="Price">{moneyWords(view.totalMinor, business.currency)}, tax included</DoorFact>
        )}
      </Box>
      {view.state === "booked" ? (
        <Button variant="contained" fullWidth href={`/my/${view.booked}`} sx={{ ...big, mt: 5 }}>
          See the visit
        </Button>
      ) : (
        <Choices view={view} token={token} />
      )}
      <Typography color="textSecondary" sx={{ mt: 4 }}>
        Anything to ask? Call <a href={`tel:${business.phone.replace(/[^\d+]/g, "")}`}>{business.phone}</a>.
      </Typography>
    </DoorPage>
  );
}

function Choices({ view, token }: { view: View; token: string }) {
  const router = useRouter();
  const { data: offers, problem, refresh } = useView("ask-offers", { token });
  const [open, setOpen] = useState<Answer | null>(null);
  const [words, setWords] = useState("");
  const [said, setSaid] = useState<Answer | null>(null);
  const book = useChange("book-asked", { quiet: true });
  const answer = useChange("answer-asked", { quiet: true });
  const refused = book.problem ?? answer.problem;
  const take = async ({ date, from, to }: PickedWindow) => {
    const sent = await book.send({ token, window: { date, from, to } });
    if (sent) location.assign(sent.value.link ? `/my/${sent.value.link}?booked` : `/again/${token}`);
    else refresh();
    return sent !== null;
  };
  const say = async (what: Answer) => {
    if (!(await answer.send({ token, answer: what, words }))) return;
    setSaid(what);
    setOpen(null);
    router.refresh();
  };
  return (
    <Box component="section" aria-label="Your answer" sx={{ mt: 5 }}>
      {said === "call me" && (
        <Alert severity="success" sx={{ mb: 4, fontSize: 16 }}>
          We call you. You may still choose a time yourself.
        </Alert>
      )}
      <Typography variant="h2" sx={{ mb: 1 }}>
        When shall we come?
      </Typography>
      <TakeWindow
        offers={offers}
        problem={problem}
        none="Nothing is free around that day. Let us call you."
        timeZone={view.business.timeZone}
        busy={book.busy}
        onTake={take}
      />
      {refused && (
        <Alert severity="warning" role="alert" sx={{ mt: 3, fontSize: 16 }}>
          {refused.sentence}
        </Alert>
      )}
      <Box sx={{ display: "flex", gap: 2, flexWrap: "wrap", mt: 3 }}>
        {view.state !== "declined" && (
          <Button
            variant="outlined"
            aria-expanded={open === "not this time"}
            onClick={() => setOpen(open === "not this time" ? null : "not this time")}
            sx={big}
          >
            Not this time
          </Button>
        )}
        <Button
          aria-expanded={open === "call me"}
          onClick={() => setOpen(open === "call me" ? null : "call me")}
          sx={big}
        >
          Call me
        </Button>
      </Box>
      {open !== null && (
        <SaidWith
          name={open === "call me" ? "Call me" : "Not this time"}
          label={open === "call me" ? "When, and about what" : "Why, if you like to say"}
          words={words}
          onWords={setWords}
          button={open === "call me" ? "Please call me" : "Leave it out this time"}
          disabled={answer.busy}
          onSay={() => void say(open)}
        />
      )}
    </Box>
  );
}

"use client";
import { change, type ViewOutput } from "@/api/client";
import { starsWords } from "@/core/messages/reviewing";
import { DoorPage } from "@/ui/door-page";
import { ink } from "@/ui/palette";
import { useChange } from "@/ui/use-change";
import { useFresh } from "@/ui/use-fresh";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Rating from "@mui/material/Rating";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";

type View = ViewOutput<"review">;
const big = { minHeight: 52, fontSize: 17 };

/** How it was: stars, what was good and what was not, always both; then our answer, and where else one may write. */
export function ReviewPage({ view: initial, token }: { view: View; token: string }) {
  const [view, refresh] = useFresh(initial, "review", { token });
  const { business, said, reply } = view;
  const [changing, setChanging] = useState(false);
  return (
    <DoorPage look={view.look} business={business}>
      <Box role="status">
        <Typography variant="h1">{said ? "Thank you for telling us" : "How was it?"}</Typography>
      </Box>
      <Typography sx={{ mt: 2 }}>
        {view.what}
        {view.when && `, ${view.when}`}
        {view.technicians.length > 0 && `, ${view.technicians.join(" and ")}`}
      </Typography>
      {said && !changing ? (
        <>
          <Said view={view} />
          {!reply && (
            <Button onClick={() => setChanging(true)} sx={{ mt: 2, minHeight: 44 }}>
              Change what I said
            </Button>
          )}
          {view.places.length > 0 && <Places view={view} token={token} />}
        </>
      ) : (
        <Answer
          view={view}
          token={token}
          onSaid={() => {
            setChanging(false);
            refresh();
          }}
        />
      )}
      <Typography color="textSecondary" sx={{ mt: 6 }}>
        Rather by phone? <a href={`tel:${business.phone.replace(/[^\d+]/g, "")}`}>{business.phone}</a>.
      </Typography>
    </DoorPage>
  );
}

function Answer({ view, token, onSaid }: { view: View; token: string; onSaid: () => void }) {
  const { said } = view;
  const kept = `hogar review ${token}`;
  const [rating, setRating] = useState<number | null>(said?.rating ?? null);
  const [praise, setPraise] = useState(said?.praise ?? "");
  const [trouble, setTrouble] = useState(said?.trouble ?? "");
  const { send, busy, problem } = useChange("answer-review", { quiet: true });
  // What is typed survives a reload.
  useEffect(() => {
    const typed = sessionStorage.getItem(kept);
    if (!typed) return;
    const before = JSON.parse(typed) as { rating: number | null; praise: string; trouble: string };
    setRating(before.rating);
    setPraise(before.praise);
    setTrouble(before.trouble);
  }, [kept]);
  useEffect(() => {
    if (rating !== null || praise || trouble) sessionStorage.setItem(kept, JSON.stringify({ rating, praise, trouble }));
  }, [kept, rating, praise, trouble]);
  return (
    <Box
      component="form"
      onSubmit={async (e) => {
        e.preventDefault();
        if (rating === null || !(await send({ token, rating, praise, trouble }))) return;
        sessionStorage.removeItem(kept);
        onSaid();
      }}
      sx={{ mt: 5, display: "grid", gap: 4 }}
    >
      <Box>
        <Rating
          name="rating"
          size="large"
          value={rating}
          onChange={(_, stars) => setRating(stars)}
          getLabelText={starsWords}
          sx={{ fontSize: 46, color: ink.honey }}
        />
        <Box sx={{ color: ink.ash }}>{rating === null ? "Choose your stars" : starsWords(rating)}</Box>
      </Box>
      <TextField
        label="What was good"
        size="medium"
        multiline
        minRows={3}
        value={praise}
        onChange={(e) => setPraise(e.target.value)}
        slotProps={{ htmlInput: { maxLength: 3000 } }}
      />
      <TextField
        label="What was not right"
        size="medium"
        multiline
        minRows={3}
        value={trouble}
        onChange={(e) => setTrouble(e.target.value)}
        helperText="Whatever you write here, one of us reads it today and sees to it"
        slotProps={{ htmlInput: { maxLength: 3000 } }}
      />
      {problem && (
        <Alert severity="warning" role="alert" sx={{ fontSize: 16 }}>
          {problem.sentence}
        </Alert>
      )}
      <Button type="submit" variant="contained" disabled={busy || rating === null} sx={big}>
        {busy ? "One moment…" : "Send"}
      </Button>
    </Box>
  );
}

function Said({ view: { said, reply, business } }: { view: View }) {
  return (
    <Box sx={{ mt: 4 }}>
      <Rating value={said!.rating} readOnly getLabelText={starsWords} sx={{ color: ink.honey }} />
      {said!.praise && <Typography sx={{ whiteSpace: "pre-wrap", mt: 1 }}>{said!.praise}</Typography>}
      {said!.trouble && (
        <Typography sx={{ whiteSpace: "pre-wrap", mt: 1 }}>
          <b>Not right:</b> {said!.trouble}
        </Typography>
      )}
      {reply ? (
        <Box sx={{ mt: 3, pl: 3, borderLeft: `3px solid ${ink.line}` }}>
          <b>
            {reply.by}, {business.name}
          </b>
          <Typography sx={{ whiteSpace: "pre-wrap" }}>{reply.words}</Typography>
        </Box>
      ) : (
        said!.trouble && (
          <Typography sx={{ mt: 2 }}>We are sorry about that. One of us gets in touch with you.</Typography>
        )
      )}
    </Box>
  );
}

/** Where else it can be written: the same for everybody, whatever they have said. */
const Places = ({ view, token }: { view: View; token: string }) => (
  <Box component="section" aria-label="Elsewhere" sx={{ mt: 5, display: "grid", gap: 2 }}>
    <Typography>If you like, tell others too:</Typography>
    {view.places.map(({ id, name, address }) => (
      <Button
        key={id}
        variant="outlined"
        href={address}
        target="_blank"
        rel="noopener noreferrer nofollow"
        onClick={() => void change("go-to-review-place", { token, placeId: id })}
        sx={big}
      >
        Write on {name}
      </Button>
    ))}
  </Box>
);

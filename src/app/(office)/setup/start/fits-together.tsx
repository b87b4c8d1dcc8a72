"use client";
import { ask, type ViewOutput } from "@/api/client";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import LinearProgress from "@mui/material/LinearProgress";
import Typography from "@mui/material/Typography";
import { useEffect, useState } from "react";

type Finding = ViewOutput<"can-be-booked">[number];
type View = ViewOutput<"first-steps">;

/** What contradicts itself, and what nobody can book: the engine is asked of one service after the other. */
export function FitsTogether({ contradictions, offered }: Pick<View, "contradictions" | "offered">) {
  const { findings, looked, failed } = useFindings(offered);
  const all: (Finding | View["contradictions"][number])[] = [...contradictions, ...findings];
  const isLooking = looked < offered.length && !failed;
  return (
    <>
      {all.length === 0 && !isLooking && !failed && <Typography>✓ Nothing contradicts itself.</Typography>}
      {all.map(({ sentence, part, id }) => (
        <Box key={sentence} sx={{ display: "flex", gap: 3, py: 1.5, borderTop: `1px solid ${ink.line}` }}>
          <Box sx={{ flex: 1 }}>{sentence}</Box>
          <LinkBox
            href={`/setup/${part}${id ? `?id=${id}` : ""}`}
            aria-label={`Mend it: ${sentence}`}
            sx={{ color: ink.lake, flex: "none" }}
          >
            Mend it
          </LinkBox>
        </Box>
      ))}
      {isLooking && (
        <Box sx={{ mt: 2, maxWidth: 420 }}>
          <Typography color="textSecondary">
            Asking whether each service can be booked: {looked} of {offered.length}
          </Typography>
          <LinearProgress
            variant="determinate"
            value={(100 * looked) / offered.length}
            aria-label="Asking whether each service can be booked"
            sx={{ mt: 1 }}
          />
        </Box>
      )}
      {failed && <Typography color="error">{failed}</Typography>}
    </>
  );
}

/** Asks of each service in turn, and begins again where they have changed. */
function useFindings(offered: View["offered"]) {
  const [found, setFound] = useState<{ findings: Finding[]; looked: number; failed: string | null }>(nothing);
  const key = JSON.stringify(offered);
  useEffect(() => {
    let current = true;
    setFound(nothing);
    void (async () => {
      for (const { id } of JSON.parse(key) as View["offered"]) {
        const result = await ask("can-be-booked", { serviceId: id });
        if (!current) return;
        // Nothing that is untrue is said of what could not be asked.
        if (!result.ok) return setFound((now) => ({ ...now, failed: result.problem.sentence }));
        setFound((now) => ({ ...now, findings: [...now.findings, ...result.value], looked: now.looked + 1 }));
      }
    })();
    return () => void (current = false);
  }, [key]);
  return found;
}

const nothing = { findings: [], looked: 0, failed: null };

"use client";
import Box from "@mui/material/Box";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import { parts } from "./parts";

/** The parts of set-up at the left. */
export const PartsRail = ({ here }: { here: string }) => (
  <Box
    component="nav"
    aria-label="Parts of set-up"
    sx={{ width: 150, flex: "none", py: 3, borderRight: `1px solid ${ink.line}` }}
  >
    {[{ path: "start", name: "First steps" }, ...parts].map((p) => (
      <LinkBox
        key={p.path}
        href={`/setup/${p.path}`}
        aria-current={p.path === here ? "page" : undefined}
        sx={{
          display: "block",
          pl: 6,
          py: 1.75,
          textDecoration: "none",
          color: ink.ink,
          fontWeight: p.path === here ? 700 : 400,
          bgcolor: p.path === here ? ink.plaster : "transparent",
        }}
      >
        {p.name}
      </LinkBox>
    ))}
  </Box>
);

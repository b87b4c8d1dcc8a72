"use client";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import { groups } from "./parts";

/** The parts of set-up at the left, by what they are about. */
export const PartsRail = ({ here }: { here: string }) => (
  <Box
    component="nav"
    aria-label="Parts of set-up"
    sx={{ width: 162, flex: "none", py: 3, borderRight: `1px solid ${ink.line}` }}
  >
    <Part path="start" name="First steps" here={here} />
    {groups.map((group) => (
      <Box key={group.name} role="group" aria-label={group.name} sx={{ mt: 3 }}>
        <Box aria-hidden="true" sx={{ pl: 6, pb: 0.5, color: ink.ash, fontSize: 13 }}>
          {group.name}
        </Box>
        {group.parts.map((part) => (
          <Part key={part.path} path={part.path} name={part.name} here={here} />
        ))}
      </Box>
    ))}
  </Box>
);

const Part = ({ path, name, here }: { path: string; name: string; here: string }) => (
  <LinkBox
    href={`/setup/${path}`}
    aria-current={path === here ? "page" : undefined}
    sx={{
      display: "block",
      pl: 6,
      py: 1.25,
      textDecoration: "none",
      color: ink.ink,
      fontWeight: path === here ? 700 : 400,
      bgcolor: path === here ? ink.plaster : "transparent",
    }}
  >
    {name}
  </LinkBox>
);

"use client";
import Box from "@mui/material/Box";
import type { ReactNode } from "react";
import { Mark } from "./arch";
import { DoorLook, doorType, type Look } from "./door-look";
import { imageAddress } from "./images";
import { arch, ink } from "./palette";

/** A page that a customer's link opens: one column, under the name of the business. */
export function DoorPage({
  look,
  business,
  children,
}: {
  look: Look;
  business: { name: string; mark: string | null };
  children: ReactNode;
}) {
  return (
    <DoorLook look={look}>
      <Box component="main" sx={{ maxWidth: 620, mx: "auto", px: 5, pt: 4, pb: 10, ...doorType }}>
        <Box component="header" sx={{ display: "flex", alignItems: "center", gap: 3, mb: 5 }}>
          {business.mark ? (
            <Box
              component="img"
              src={imageAddress(business.mark)}
              alt=""
              sx={{ height: 34, maxWidth: 110, objectFit: "contain" }}
            />
          ) : (
            <Mark size={26} />
          )}
          <Box className="titles" sx={{ fontWeight: 650 }}>
            {business.name}
          </Box>
        </Box>
        {children}
      </Box>
    </DoorLook>
  );
}

/** The promise of a link's page: a time and a day, and what is said under them. */
export const PromiseArch = ({ time, day, children }: { time: string; day: string; children: ReactNode }) => (
  <Box
    sx={{
      borderRadius: arch,
      border: `1px solid ${ink.line}`,
      bgcolor: "#fff",
      textAlign: "center",
      pt: 9,
      pb: 6,
      px: 6,
      my: 5,
      mx: "auto",
      maxWidth: 340,
    }}
  >
    <Box className="titles" sx={{ fontSize: 34, fontWeight: 700, lineHeight: 1.1 }}>
      {time}
    </Box>
    <Box sx={{ fontSize: 19, mt: 1 }}>{day}</Box>
    {children}
  </Box>
);

/** What something is, in one line. */
export const DoorFact = ({ name, children }: { name: string; children: ReactNode }) => (
  <Box sx={{ display: "flex", gap: 3, py: 1.5, borderTop: `1px solid ${ink.line}` }}>
    <Box sx={{ width: 72, color: ink.ash }}>{name}</Box>
    <Box sx={{ flex: 1 }}>{children}</Box>
  </Box>
);

/** An amount, in one line. */
export const AmountRow = ({ name, value, strong }: { name: string; value: string; strong?: boolean }) => (
  <Box
    sx={{
      display: "flex",
      justifyContent: "space-between",
      gap: 3,
      py: 1.5,
      borderTop: `1px solid ${ink.line}`,
      fontWeight: strong ? 700 : 400,
    }}
  >
    <span>{name}</span>
    <span style={{ whiteSpace: "nowrap" }}>{value}</span>
  </Box>
);

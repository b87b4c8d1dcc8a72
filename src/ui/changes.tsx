"use client";
import type { Harsher } from "@/core/catalogue/agreement";
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";

/** Old and new side by side. */
export function Changes({ changes }: { changes: readonly Harsher[] }) {
  return (
    <Alert severity="warning" role="alert" sx={{ mb: 3, fontSize: 16 }}>
      This has changed since you read it. Nothing is booked yet.
      <Box component="table" sx={{ mt: 2, "& th, & td": { textAlign: "left", verticalAlign: "top", pr: 3, py: 0.5 } }}>
        <thead>
          <tr>
            <th />
            <th>Before</th>
            <th>Now</th>
          </tr>
        </thead>
        <tbody>
          {changes.map(({ what, before, now }) => (
            <tr key={what}>
              <th scope="row">{what}</th>
              <td>{before}</td>
              <td>
                <b>{now}</b>
              </td>
            </tr>
          ))}
        </tbody>
      </Box>
    </Alert>
  );
}

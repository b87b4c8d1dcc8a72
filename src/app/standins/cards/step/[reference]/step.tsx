"use client";
import { post } from "@/api/client";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Stack from "@mui/material/Stack";
import Typography from "@mui/material/Typography";

export function Step({
  reference,
  amount,
  description,
  open,
  back,
}: {
  reference: string;
  amount: string;
  description: string;
  open: boolean;
  back: string;
}) {
  const settle = async (agreed: boolean) => {
    await post(`/standins/cards/step/${reference}/settle`, { agreed });
    window.location.assign(back);
  };
  return (
    <Box component="main" sx={{ maxWidth: 420, mx: "auto", p: 6 }}>
      <Typography variant="h1">Your bank asks</Typography>
      <Typography sx={{ my: 4 }}>
        {open ? `Do you agree to pay ${amount} to ${description}?` : "This question has been answered."}
      </Typography>
      <Stack spacing={3}>
        {open && (
          <Button variant="contained" size="large" onClick={() => void settle(true)}>
            Yes, I agree
          </Button>
        )}
        {open && (
          <Button variant="outlined" size="large" onClick={() => void settle(false)}>
            No
          </Button>
        )}
        {!open && (
          <Button variant="outlined" href={back}>
            Back
          </Button>
        )}
      </Stack>
      <Typography sx={{ mt: 6 }} color="textSecondary" variant="body2">
        A stand-in for the second step that banks ask for.
      </Typography>
    </Box>
  );
}

import { MoneyField } from "@/ui/form-parts";
import Box from "@mui/material/Box";

/** What somebody gives for whoever came, if they like to. */
export function TipField({
  currency,
  tipMinor,
  onTip,
  wrong,
}: {
  currency: string;
  tipMinor: number;
  onTip: (minor: number) => void;
  wrong?: string | undefined;
}) {
  return (
    <Box sx={{ mt: 3 }}>
      <MoneyField
        currency={currency}
        label={`Tip for whoever came, ${currency}`}
        value={tipMinor}
        onValue={onTip}
        wrong={wrong}
        helperText="If you like; it goes to them, all of it"
      />
    </Box>
  );
}

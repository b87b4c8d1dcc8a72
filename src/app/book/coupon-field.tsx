"use client";
import { ask } from "@/api/client";
import type { Coupon } from "@/core/catalogue/coupons";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useState } from "react";

/** A code that takes something off; what it takes is seen at once. */
export function CouponField({
  serviceIds,
  coupon,
  onCoupon,
  wrong,
}: {
  serviceIds: number[];
  coupon: Coupon | null;
  onCoupon: (coupon: Coupon | null) => void;
  wrong?: string;
}) {
  const [code, setCode] = useState("");
  const [said, setSaid] = useState<string | null>(null);
  const [busy, setBusy] = useState(false);
  const use = async () => {
    setBusy(true);
    const result = await ask("check-coupon", { code, serviceIds });
    setBusy(false);
    setSaid(result.ok ? null : (result.problem.fields?.["/coupon"] ?? result.problem.sentence));
    if (result.ok) onCoupon(result.value);
  };
  if (coupon)
    return (
      <Box sx={{ mb: 3 }}>
        <Box sx={{ display: "flex", alignItems: "center", gap: 2, color: wrong ? "error.main" : ink.moss }}>
          {wrong ?? `✓ ${coupon.code} applied.`}
          <Button onClick={() => onCoupon(null)}>Remove</Button>
        </Box>
      </Box>
    );
  return (
    <Box
      component="form"
      onSubmit={(e) => {
        e.preventDefault();
        void use();
      }}
      sx={{ display: "flex", gap: 2, alignItems: "flex-start", mb: 3 }}
    >
      <TextField
        label="A code, if you have one"
        size="medium"
        value={code}
        onChange={(e) => setCode(e.target.value)}
        error={!!(said ?? wrong)}
        helperText={said ?? wrong}
      />
      <Button type="submit" variant="outlined" disabled={busy || !code.trim()} sx={{ minHeight: 56, flex: "none" }}>
        Use it
      </Button>
    </Box>
  );
}

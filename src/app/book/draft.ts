"use client";
import { useCallback, useEffect, useState } from "react";
import type { ViewOutput } from "@/api/client";
import type { FoundAddress } from "@/ui/address-field";
import type { Coupon } from "@/core/catalogue/coupons";
import type { Answers } from "@/core/catalogue/questions";
import type { ChosenExtras } from "@/ui/order-form";

export type ServicesAt = ViewOutput<"services-at">;
export type BookableService = ServicesAt["services"][number];
export type Offer = ViewOutput<"offers">[number];
export const steps = ["where", "what", "when", "who", "pay"] as const;
export type Step = (typeof steps)[number];

/** What a customer has chosen and typed so far. Kept in the browser's session, so that nothing is lost on a reload. */
export interface Draft {
  step: Step;
  address: FoundAddress | null;
  serviceId: number | null;
  /** The technician wished for, where the service lets customers. */
  technicianId: number | null;
  answers: Answers;
  extras: ChosenExtras;
  offer: Offer | null;
  hold: { key: string; until: number } | null;
  name: string;
  mail: string;
  phone: string;
  reminders: boolean;
  note: string;
  payAll: boolean;
  coupon: Coupon | null;
  /** What stood in the link they came by. */
  source: string | null;
}

const empty: Draft = { step: "where", address: null, serviceId: null, technicianId: null, answers: {}, extras: [], offer: null, hold: null, name: "", mail: "", phone: "", reminders: true, note: "", payAll: false, coupon: null, source: null };
const key = "hogar booking";

export function useDraft() {
  const [draft, setDraft] = useState<Draft>(empty);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    try {
      const kept = sessionStorage.getItem(key);
      if (kept) setDraft({ ...empty, ...(JSON.parse(kept) as Draft) });
    } catch {
      // What cannot be read is begun anew.
    }
    setReady(true);
  }, []);
  useEffect(() => {
    if (ready) sessionStorage.setItem(key, JSON.stringify(draft));
  }, [draft, ready]);
  const change = useCallback((part: Partial<Draft>) => setDraft((now) => ({ ...now, ...part })), []);
  return { draft, ready, change, forget: () => sessionStorage.removeItem(key) };
}

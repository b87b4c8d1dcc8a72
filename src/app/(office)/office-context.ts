"use client";
import type { Permission } from "@/core/people/permissions";
import { createContext, useContext } from "react";

export interface OfficePerson {
  name: string;
  role: string;
  permissions: Permission[];
}
export interface OfficeState {
  person: OfficePerson;
  demo: { now: number; timeZone: string } | null;
  openFind: () => void;
  /** Begins a new customer over whatever is on the screen. */
  openNewCustomer: () => void;
}
/** What every screen of the office may know and begin. */
export const OfficeContext = createContext<OfficeState | null>(null);
export const useOffice = (): OfficeState => useContext(OfficeContext)!;

"use client";
import { createContext, useContext } from "react";

/** What follows every change that was accepted: the office reads again what is on the screen. Customers' pages do it themselves. */
export const AfterChange = createContext<() => Promise<void> | void>(() => {});
export const useAfterChange = (): (() => Promise<void> | void) => useContext(AfterChange);

/** The last change that whatever is on the screen can have known of, as the audit numbers it; undefined where forms are not compared. */
export const KnownChange = createContext<number | undefined>(undefined);
export const useKnownChange = (): number | undefined => useContext(KnownChange);

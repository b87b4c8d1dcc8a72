"use client";
import { createContext, useContext } from "react";

/** What follows every change that was accepted: the office reads again what is on the screen. Customers' pages do it themselves. */
export const AfterChange = createContext<() => void>(() => {});
export const useAfterChange = (): (() => void) => useContext(AfterChange);

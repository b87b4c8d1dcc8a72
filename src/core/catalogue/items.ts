import type { Answers } from "./questions";

/** A service in an order, as it came in: how many of it, what was answered and added. */
export interface Item {
  serviceId: number;
  quantity: number;
  answers: Answers;
  extras: { id: number; quantity: number }[];
  /** The job pattern by which all of the order is done; it stands with the first. */
  patternId?: number;
}

export const justOne = (serviceId: number): Item => ({ serviceId, quantity: 1, answers: {}, extras: [] });

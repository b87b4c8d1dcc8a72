import type { Minor } from "../money/amounts";
import type { WorkPlace } from "../visits/work-place";

/** What may be booked together, and how it is paid. */

interface Basketed {
  days: number;
  /** How many customers share a time; 0: each has one of their own. */
  seats: number;
  workPlace: WorkPlace;
  mayPayAll: boolean;
  wish: "none" | "preferred" | "only";
}

/** Work of several days is booked alone and once, a seat alone: the first of the basket that may not be where it is, or null. */
export const mustBeAlone = <I extends { service: Pick<Basketed, "days" | "seats">; quantity: number }>(
  items: readonly I[],
): I | null =>
  items.length > 1
    ? (items.find(({ service }) => isAlone(service)) ?? null)
    : (items.find(({ service, quantity }) => service.days > 1 && quantity > 1) ?? null);

const isAlone = ({ days, seats }: Pick<Basketed, "days" | "seats">): boolean => days > 1 || seats > 0;

/** What stays in a basket when a service is put into it: one visit is made at one place. */
export const goesWith = <S extends Pick<Basketed, "days" | "seats" | "workPlace">>(
  service: S,
  others: readonly { service: S }[],
): boolean =>
  !isAlone(service) &&
  others.every((other) => !isAlone(other.service) && other.service.workPlace === service.workPlace);

/** Whether all of it may be paid at once: where each service lets it. */
export const mayPayAll = (items: readonly { service: Pick<Basketed, "mayPayAll"> }[]): boolean =>
  items.length > 0 && items.every(({ service }) => service.mayPayAll);

/** What is paid while booking. */
export const paidNow = (order: { totalMinor: Minor; depositMinor: Minor }, all: boolean): Minor =>
  all ? order.totalMinor : order.depositMinor;

/**
 * The technician whom a customer wishes for, as it counts: where each service lets customers have a wish; and nobody
 * else comes where one of them says so. A wish that does not count is no refusal.
 */
export const wishThatCounts = (
  items: readonly { service: Pick<Basketed, "wish"> }[],
  technicianId: number | null,
): { technicianId: number; only: boolean } | null =>
  technicianId !== null && items.every(({ service }) => service.wish !== "none")
    ? { technicianId, only: items.some(({ service }) => service.wish === "only") }
    : null;

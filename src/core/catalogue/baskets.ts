import type { Minor } from "../money/amounts";
import type { WorkPlace } from "../visits/work-place";

/** What may be booked together, and how it is paid. */

interface Basketed {
  days: number;
  workPlace: WorkPlace;
  mayPayAll: boolean;
  wish: "none" | "preferred" | "only";
}

/** Work of several days is booked alone and once: the first of the basket that may not be where it is, or null. */
export const mustBeAlone = <I extends { service: Pick<Basketed, "days">; quantity: number }>(
  items: readonly I[],
): I | null =>
  items.length > 1
    ? (items.find(({ service }) => service.days > 1) ?? null)
    : (items.find(({ service, quantity }) => service.days > 1 && quantity > 1) ?? null);

/** What stays in a basket when a service is put into it: one visit is made at one place. */
export const goesWith = <S extends Pick<Basketed, "days" | "workPlace">>(
  service: S,
  others: readonly { service: S }[],
): boolean =>
  service.days === 1 &&
  others.every((other) => other.service.days === 1 && other.service.workPlace === service.workPlace);

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

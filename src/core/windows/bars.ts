/** Ids to which something is limited; none: no limit. */
export type Named = readonly number[];

/** A list of names that is empty names everybody. */
export const isNamed = (named: Named, id: number): boolean => named.length === 0 || named.includes(id);

/** What a technician is limited to, and whether customers are offered this person. */
export interface OwnLimits {
  id: number;
  zones: Named;
  services: Named;
  offered: boolean;
}

/** A zone or a service, with the technicians it is limited to. */
export interface Limited {
  id: number;
  technicians: Named;
}

/**
 * What keeps a technician from a visit whatever the day, or null: both sides may name one another, and
 * both hold. Outside all zones (`zone` null) only those go who are limited to none. The office may
 * place whom customers are not offered.
 */
export function barOf(
  technician: OwnLimits,
  zone: Limited | null,
  services: readonly Limited[],
  office: boolean,
): "other-zone" | "other-services" | "not-offered" | null {
  const goesThere = zone
    ? isNamed(zone.technicians, technician.id) && isNamed(technician.zones, zone.id)
    : technician.zones.length === 0;
  if (!goesThere) return "other-zone";
  if (
    services.some(
      (service) => !isNamed(service.technicians, technician.id) || !isNamed(technician.services, service.id),
    )
  )
    return "other-services";
  return office || technician.offered ? null : "not-offered";
}

import { groupBy } from "@/core/group";
import { barOf, type OwnLimits } from "@/core/windows/bars";
import type { ViewContext } from "@/kernel/operation";

export interface Bars {
  /** What keeps a technician from any of the services in the zone. */
  of: (technicianId: number, serviceIds: readonly number[]) => ReturnType<typeof barOf>;
  /** Most minutes of work on one day, or null. */
  mostMinutes: (technicianId: number) => number | null;
}

/** Who goes to a zone and does what there, as zones, services and technicians name one another. */
export function readBars({ sql }: ViewContext, zoneId: number | null, office: boolean): Bars {
  const named = (table: string, of: string, what: string) => {
    const rows = groupBy(
      sql<{ id: number; named: number }>(`SELECT ${of}_id AS id, ${what}_id AS named FROM ${table}`).all(),
      (row) => row.id,
    );
    return (id: number) => (rows.get(id) ?? []).map((row) => row.named);
  };
  const ofZone = named("zone_technicians", "zone", "technician");
  const ofService = named("service_technicians", "service", "technician");
  const [zones, services] = [
    named("technician_zones", "technician", "zone"),
    named("technician_services", "technician", "service"),
  ];
  const own = new Map(
    sql<{ id: number; offered: number; most_minutes: number | null }>(
      "SELECT id, offered, most_minutes FROM technicians",
    )
      .all()
      .map((t) => [
        t.id,
        {
          id: t.id,
          zones: zones(t.id),
          services: services(t.id),
          offered: t.offered === 1,
          mostMinutes: t.most_minutes,
        } satisfies OwnLimits & { mostMinutes: number | null },
      ]),
  );
  const zone = zoneId === null ? null : { id: zoneId, technicians: ofZone(zoneId) };
  return {
    of: (technicianId, serviceIds) =>
      barOf(
        own.get(technicianId)!,
        zone,
        serviceIds.map((id) => ({ id, technicians: ofService(id) })),
        office,
      ),
    mostMinutes: (technicianId) => own.get(technicianId)!.mostMinutes,
  };
}

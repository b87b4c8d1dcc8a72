import type { Operation, OperationContext } from "@/kernel/operation";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { saveZone, setZoneAside, takeZones } from "@/modules/place/operations/save-zone";
import { saveOpening, saveSpecialDay, takeSpecialDays } from "@/modules/placing/operations/opening";
import { touching, type Touches } from "@/modules/placing/unkept";
import { saveTechnician } from "@/modules/team/operations/save-technician";
import type { Static, TSchema } from "@sinclair/typebox";

/** A change of set-up that says which promises it makes such that they cannot be kept; null: of something new, which touches none. */
const promising = <S extends TSchema, R>(
  operation: Operation<S, R>,
  touches: (input: Static<S>) => Touches | null,
): Operation<S, R> => ({
  ...operation,
  run(context: OperationContext, input: Static<S>) {
    const which = touches(input);
    return which === null
      ? operation.run(context, input)
      : touching(context, which, () => operation.run(context, input));
  },
});

/** Every change of set-up that can touch what is promised. */
export const promisingOperations = {
  "save-technician": promising(saveTechnician, ({ id }) => (id === null ? null : { technicianId: id })),
  "save-zone": promising(saveZone, ({ id }) => (id === null ? null : { zoneId: id })),
  "set-zone-aside": promising(setZoneAside, ({ id }) => ({ zoneId: id })),
  "take-zones": promising(takeZones, () => "all"),
  "save-service": promising(saveService, ({ id }) => (id === null ? null : { serviceId: id })),
  "save-opening": promising(saveOpening, () => "all"),
  "save-special-day": promising(saveSpecialDay, () => "all"),
  "take-special-days": promising(takeSpecialDays, () => "all"),
};

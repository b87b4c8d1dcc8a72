import { defineModule } from "@/kernel/module";
import { teamNeeds } from "./needs";
import { recordErrand, recordTimeOff, removeErrand, removeTimeOff, setDayHours } from "./operations/absences";
import { setTechnicianActive } from "./operations/save-technician";

export const teamModule = defineModule({
  name: "team",
  owns: [
    "technicians",
    "technician_skills",
    "technician_services",
    "technician_zones",
    "working_spans",
    "day_hours",
    "time_off",
    "errands",
  ],
  operations: {
    "record-errand": recordErrand,
    "record-time-off": recordTimeOff,
    "remove-errand": removeErrand,
    "remove-time-off": removeTimeOff,
    "set-day-hours": setDayHours,
    "set-technician-active": setTechnicianActive,
  },
  needs: teamNeeds,
});

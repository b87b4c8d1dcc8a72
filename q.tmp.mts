import { openHogar } from "@/operations/hogar";
import { epochMinute } from "@/core/time/local";
import { makeTown } from "./demo/town";
import { makeWorld } from "./demo/world";
let clock = 0;
const hogar = openHogar({ folder: null, clock: () => clock, town: makeTown(7), env: {} });
await makeWorld(hogar, (ms) => (clock = ms), epochMinute("2027-03-09", 605, "Europe/Lisbon") * 60_000, { seed: 7, historyDays: 3 });
console.log(hogar.store.sql("SELECT v.id, v.state, v.date, v.window_from, v.window_to, v.minutes, v.crew, v.meet_at, p.*, t.name, s.code FROM placements p JOIN visits v ON v.id = p.visit_id JOIN technicians t ON t.id=p.technician_id JOIN services s ON s.id=v.service_id WHERE p.settled = 0 AND p.arrives NOT BETWEEN v.window_from AND v.window_to").all());
console.log(hogar.store.sql("SELECT a.at, a.actor, a.operation, c.after FROM audit_changes c JOIN audit a ON a.id=c.audit_id WHERE entity='placements' AND row_key LIKE '31 %' OR (entity='visits' AND row_key='31') ORDER BY c.id").all());

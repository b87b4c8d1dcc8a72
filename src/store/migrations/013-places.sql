-- Where work is done: at the customer's site, at our own place (brought in, or a shop), or from afar (a call).
ALTER TABLE services ADD COLUMN work_place TEXT NOT NULL DEFAULT 'site' CHECK (work_place IN ('site', 'ours', 'afar'));
-- As it was agreed: a later change of the service does not touch it. `lng` and `lat` say where the technician has to be; from
-- afar that is wherever they are.
ALTER TABLE visits ADD COLUMN work_place TEXT NOT NULL DEFAULT 'site' CHECK (work_place IN ('site', 'ours', 'afar'));

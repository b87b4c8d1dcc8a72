-- Where work is done: at the customer's site, or at our own place (brought in, or a shop).
ALTER TABLE services ADD COLUMN work_place TEXT NOT NULL DEFAULT 'site' CHECK (work_place IN ('site', 'ours'));
-- As it was agreed: a later change of the service does not touch it. `lng` and `lat` say where the technician has to be.
ALTER TABLE visits ADD COLUMN work_place TEXT NOT NULL DEFAULT 'site' CHECK (work_place IN ('site', 'ours'));

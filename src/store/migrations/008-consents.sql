-- What was agreed to with a booking: its link shows and changes that, and nothing of other bookings. Null where
-- the booking itself asked nothing (a repeat, somebody the office knows): then what the customer has agreed to counts.
ALTER TABLE jobs ADD COLUMN reminders INTEGER CHECK (reminders IN (0, 1));
ALTER TABLE jobs ADD COLUMN offers INTEGER CHECK (offers IN (0, 1));

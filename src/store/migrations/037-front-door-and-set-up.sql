-- Whether its customer had confirmed a window when that was given up: a move that is taken back at once gives it back.
ALTER TABLE promises ADD COLUMN confirmed_at INTEGER;

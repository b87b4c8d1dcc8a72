-- Repeats are imported too. A check cannot be changed: the table is made anew.
CREATE TABLE imports_anew (
  id INTEGER PRIMARY KEY,
  kind TEXT NOT NULL CHECK (kind IN ('customers', 'services', 'extras', 'prices', 'repeats')),
  file TEXT NOT NULL,
  made_at INTEGER NOT NULL,
  made_by TEXT NOT NULL,
  -- `filling` while rows arrive, `checking` while they are looked over, `checked` when a person decides, then `taking` and
  -- `taken`, or `undoing` and `undone`; `stopped` is taking that a person has stopped.
  state TEXT NOT NULL CHECK (state IN ('filling', 'checking', 'checked', 'taking', 'stopped', 'taken', 'undoing', 'undone')),
  -- What each column of the file holds, by the name of the column; and how its dates are written.
  columns TEXT NOT NULL CHECK (json_valid(columns)),
  row_count INTEGER NOT NULL
) STRICT;
INSERT INTO imports_anew SELECT id, kind, file, made_at, made_by, state, columns, row_count FROM imports;
DROP TABLE imports;
ALTER TABLE imports_anew RENAME TO imports;
CREATE INDEX imports_under_way ON imports (id) WHERE state IN ('checking', 'taking', 'undoing');

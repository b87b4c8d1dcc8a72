-- The link by which a customer sees all that is open, with a statement: its nonce, by the customer's id.
CREATE TABLE account_links (
  id INTEGER PRIMARY KEY REFERENCES customers (id),
  nonce TEXT NOT NULL
) STRICT;

-- A customer is found by those who are reached for them, too: by their names, phones and addresses of mail.
-- The index is keyed by rowid, so that the texts of one customer are written whole, whatever of them changed.
DROP TRIGGER customers_are_found;
DROP VIEW customer_texts;

-- Of a phone only its digits count; places twice, with and without the postcode's space.
CREATE VIEW customer_texts AS
SELECT c.id, c.name,
  replace(replace(replace(replace(replace(replace(replace(
    c.phone || coalesce((SELECT group_concat(' · ' || json_extract(one.value, '$.phone'), '') FROM json_each(c.contacts) one), ''),
    '+', ''), ' ', ''), '-', ''), '.', ''), '(', ''), ')', ''), '/', '') AS phone,
  trim(c.mail || ' ' || c.bill_mail ||
    coalesce((SELECT group_concat(' · ' || json_extract(one.value, '$.name') || ' ' || json_extract(one.value, '$.mail'), '')
      FROM json_each(c.contacts) one), '')) AS mail,
  trim(coalesce((SELECT group_concat(s.name || ' ' || s.line || ' ' || s.postcode || ' ' || replace(s.postcode, ' ', ''), ' · ')
    FROM sites s WHERE s.customer_id = c.id), '') || ' ' || c.bill_address) AS places,
  coalesce((SELECT group_concat(t.tag, ' · ') FROM customer_tags t WHERE t.customer_id = c.id), '') AS tags,
  trim(c.bill_name || ' ' || c.technician_note || ' ' || c.inside_note) AS notes
FROM customers c;

CREATE TRIGGER customers_are_found AFTER UPDATE OF name, phone, mail, bill_name, bill_mail, bill_address, technician_note, inside_note, contacts ON customers BEGIN
  INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes) SELECT * FROM customer_texts WHERE id = NEW.id;
END;

INSERT OR REPLACE INTO customer_search (rowid, name, phone, mail, places, tags, notes)
SELECT * FROM customer_texts WHERE id IN (SELECT id FROM customers WHERE contacts <> '[]');

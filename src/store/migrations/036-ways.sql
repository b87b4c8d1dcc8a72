-- What a service is called in other languages: { "es": "…" }. The name itself is in the language of the business.
ALTER TABLE services ADD COLUMN other_names TEXT NOT NULL DEFAULT '{}' CHECK (json_valid(other_names));

-- What a rate of 0% is: taxed at nothing, or exempt; and why, as it stands on invoices. There is one such rate.
ALTER TABLE tax_rates ADD COLUMN zero_kind TEXT NOT NULL DEFAULT 'zero rated' CHECK (zero_kind IN ('zero rated', 'exempt'));
ALTER TABLE tax_rates ADD COLUMN words TEXT NOT NULL DEFAULT '';
-- What lines of 0% were on an invoice where its customer pays tax.
ALTER TABLE invoices ADD COLUMN zero_kind TEXT NOT NULL DEFAULT 'zero rated' CHECK (zero_kind IN ('zero rated', 'exempt'));

-- Words with which answers by hand begin, by language; null: those a business starts with.
ALTER TABLE business ADD COLUMN quick_answers TEXT CHECK (json_valid(quick_answers));

-- Others who are reached for a customer: [{ "name", "role", "mail", "phone", "uses": ["visits" | "bills" | "access"] }].
ALTER TABLE customers ADD COLUMN contacts TEXT NOT NULL DEFAULT '[]' CHECK (json_valid(contacts));

-- What a customer is charged where the bank takes a payment of theirs back; 0: nothing.
ALTER TABLE business ADD COLUMN return_fee_minor INTEGER NOT NULL DEFAULT 0 CHECK (return_fee_minor >= 0);

-- What a statement opens and closes with, as far as it says: { "account", "opening": { "cents", "date" }, "closing": { … } }.
ALTER TABLE imports ADD COLUMN balances TEXT CHECK (json_valid(balances));

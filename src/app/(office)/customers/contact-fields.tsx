"use client";
import type { OperationInput } from "@/api/client";
import { type ContactUse, contactUses, contactUseWords } from "@/core/people/contact-persons";
import { upper } from "@/core/words";
import { Field } from "@/ui/form-parts";
import DeleteOutlined from "@mui/icons-material/DeleteOutlined";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import IconButton from "@mui/material/IconButton";

type Contacts = NonNullable<OperationInput<"save-customer">["contacts"]>;
type Contact = Contacts[number];
const most = 12;

/** Others who are reached for a customer, each with what for. */
export function ContactFields({
  contacts,
  onContacts,
  wrong,
}: {
  contacts: Contacts;
  onContacts: (contacts: Contacts) => void;
  wrong: (path: string) => string | undefined;
}) {
  const change = (at: number, part: Partial<Contact>) =>
    onContacts(contacts.map((one, i) => (i === at ? { ...one, ...part } : one)));
  const toggled = (uses: readonly ContactUse[], use: ContactUse): ContactUse[] =>
    uses.includes(use) ? uses.filter((one) => one !== use) : [...uses, use];
  return (
    <>
      {contacts.map((one, at) => {
        const text = (field: "name" | "role" | "phone" | "mail") => ({
          value: one[field],
          onChange: (e: { target: { value: string } }) => change(at, { [field]: e.target.value }),
          wrong: wrong(`/contacts/${at}/${field}`),
        });
        return (
          <Box key={at} role="group" aria-label={one.name || "Somebody else"} sx={{ display: "grid", gap: 2 }}>
            <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr 1fr 1fr auto", gap: 3, alignItems: "start" }}>
              <Field label="Their name" {...text("name")} />
              <Field label="Who they are" {...text("role")} placeholder="daughter, caretaker" />
              <Field label="Their phone" {...text("phone")} />
              <Field label="Their email" {...text("mail")} />
              <IconButton
                aria-label={`Take ${one.name || "this one"} away`}
                onClick={() => onContacts(contacts.filter((_, i) => i !== at))}
              >
                <DeleteOutlined fontSize="small" />
              </IconButton>
            </Box>
            <Box>
              {contactUses.map((use) => (
                <FormControlLabel
                  key={use}
                  control={
                    <Checkbox
                      checked={one.uses.includes(use)}
                      onChange={() => change(at, { uses: toggled(one.uses, use) })}
                    />
                  }
                  label={upper(contactUseWords[use])}
                />
              ))}
            </Box>
          </Box>
        );
      })}
      <Box>
        <Button
          variant="outlined"
          size="small"
          disabled={contacts.length >= most}
          onClick={() => onContacts([...contacts, { name: "", role: "", phone: "", mail: "", uses: [] }])}
        >
          Add somebody
        </Button>
      </Box>
    </>
  );
}

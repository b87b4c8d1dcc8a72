"use client";
import type { OperationInput, ViewOutput } from "@/api/client";
import { FormFrame } from "@/ui/form-frame";
import { Columns, Field, OptionalWholeField } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import { useLive } from "@/ui/live";
import { useKeptForm } from "@/ui/use-kept-form";
import Autocomplete from "@mui/material/Autocomplete";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useOffice } from "../office-context";
import { BillingFields } from "./billing-fields";
import { ContactFields } from "./contact-fields";
import { reachedByWords } from "./data";
import { SameAs } from "./same-as";
import { SiteFields, type SiteDraft, noSite } from "./site-fields";

type Customer = ViewOutput<"customer">;
type Save = OperationInput<"save-customer">;
type Billing = NonNullable<Save["billing"]>;
type Draft = Omit<Save, "bill" | "billing" | "site" | "contacts"> & {
  contacts: NonNullable<Save["contacts"]>;
  billing: Billing;
  billed: boolean;
  bill: NonNullable<Save["bill"]>;
  site: SiteDraft;
};

const fresh: Draft = {
  id: null,
  name: "",
  mail: "",
  phone: "",
  reachedBy: "any",
  tags: [],
  source: "",
  paymentDays: null,
  billing: { by: null, paymentFrom: "invoice", taxKind: "standard", taxNumber: "" },
  technicianNote: "",
  insideNote: "",
  contacts: [],
  billed: false,
  bill: { name: "", mail: "", address: "" },
  reminders: true,
  offers: false,
  site: noSite,
};

const draftOf = (c: Customer): Draft => ({
  ...fresh,
  id: c.id,
  name: c.name,
  mail: c.mail ?? "",
  phone: c.phone ?? "",
  reachedBy: c.reachedBy,
  tags: c.tags,
  source: c.source,
  paymentDays: c.paymentDays,
  billing: c.billing,
  technicianNote: c.technicianNote,
  insideNote: c.insideNote ?? "",
  contacts: c.contacts ?? [],
  billed: c.bill !== null,
  bill: c.bill ?? fresh.bill,
  reminders: c.reminders,
  offers: c.offers,
});

const inputOf = ({ billed, bill, site, ...rest }: Draft): Save => {
  const { address, ...details } = site;
  return {
    ...rest,
    bill: billed ? bill : null,
    ...(rest.id === null && { site: address && { addressId: address.id, ...details } }),
  };
};

/** Somebody new, or a change to somebody known. */
export function CustomerForm({
  customer,
  saved,
  onOpen,
}: {
  customer: Customer | null;
  saved: (id: number) => void;
  /** Shows a customer we know already in place of the new one. */
  onOpen: (id: number) => void;
}) {
  const { permissions } = useOffice().person;
  const [seesContacts, seesNotes] = [permissions.includes("contacts.see"), permissions.includes("notes.see")];
  const { data: choices } = useLive("customer-choices", {});
  const { draft, set, wrong, round, frame } = useKeptForm({
    operation: "save-customer",
    of: `customer ${customer?.id ?? "new"}`,
    from: customer ? draftOf(customer) : fresh,
    input: inputOf,
    name: (d) => d.name,
    saved: ({ id }) => saved(id),
  });
  const text = (name: "name" | "mail" | "phone" | "source") => ({
    value: draft[name],
    onChange: (e: { target: { value: string } }) => set({ [name]: e.target.value }),
    wrong: wrong(`/${name}`),
  });
  return (
    <FormFrame title={customer?.name ?? "New customer"} key={round} {...frame}>
      <Field label="Name" autoFocus {...text("name")} />
      {seesContacts && (
        <Columns>
          <Field label="Phone" {...text("phone")} />
          <Field label="Email" {...text("mail")} />
        </Columns>
      )}
      <SameAs
        name={draft.name}
        mail={draft.mail}
        phone={draft.phone}
        addressId={draft.site.address?.id ?? null}
        but={customer?.id ?? null}
        onOpen={onOpen}
      />
      <TextField
        select
        label="Likes to be reached by"
        value={draft.reachedBy}
        onChange={(e) => set({ reachedBy: e.target.value as Draft["reachedBy"] })}
      >
        {Object.entries(reachedByWords).map(([way, words]) => (
          <MenuItem key={way} value={way}>
            {words}
          </MenuItem>
        ))}
      </TextField>
      {!customer && (
        <FormSection title="Where we go" note="More sites can be added on the customer’s page.">
          <SiteFields
            draft={draft.site}
            set={(site) => set({ site: { ...draft.site, ...site } })}
            wrong={(name) => wrong(`/site${name}`)}
          />
        </FormSection>
      )}
      {seesContacts && (
        <FormSection
          title="Others to reach"
          said={draft.contacts.length ? draft.contacts.map(({ name }) => name).join(", ") : "nobody else"}
          note="A second phone, a daughter, a caretaker, an accountant. They are told the same as the customer, of what is ticked."
        >
          <ContactFields contacts={draft.contacts} onContacts={(contacts) => set({ contacts })} wrong={wrong} />
        </FormSection>
      )}
      <FormSection title="Notes">
        <Field
          label="For technicians"
          multiline
          minRows={2}
          value={draft.technicianNote}
          onChange={(e) => set({ technicianNote: e.target.value })}
          wrong={wrong("/technicianNote")}
          helperText="Seen in the field, at every visit to them"
        />
        {seesNotes && (
          <Field
            label="For inside only"
            multiline
            minRows={2}
            value={draft.insideNote}
            onChange={(e) => set({ insideNote: e.target.value })}
            wrong={wrong("/insideNote")}
            helperText="Never in the field and never to the customer"
          />
        )}
        <Autocomplete
          multiple
          freeSolo
          autoSelect
          options={choices?.tags.map(({ tag }) => tag) ?? []}
          value={draft.tags}
          onChange={(_, tags) => set({ tags })}
          renderInput={(params) => (
            <TextField
              {...params}
              label="Tags"
              error={!!wrong("/tags")}
              helperText={wrong("/tags") ?? "Type one and press Enter"}
            />
          )}
        />
        <Autocomplete
          freeSolo
          options={choices?.sources.map(({ source }) => source) ?? []}
          inputValue={draft.source}
          onInputChange={(_, source) => set({ source })}
          renderInput={(params) => <TextField {...params} label="Source" helperText="Where they came from" />}
        />
      </FormSection>
      <FormSection title="Bills">
        <OptionalWholeField
          label="Days to pay"
          value={draft.paymentDays}
          onValue={(paymentDays) => set({ paymentDays })}
          wrong={wrong("/paymentDays")}
          helperText={customer ? `Empty: ${customer.businessDays}, as for everybody` : "Empty: as for everybody"}
        />
        <BillingFields
          billing={draft.billing}
          usual={customer?.businessBilling ?? null}
          ownDays={draft.paymentDays !== null}
          onBilling={(billing) => set({ billing })}
        />
        {seesContacts && (
          <FormControlLabel
            control={<Checkbox checked={draft.billed} onChange={(e) => set({ billed: e.target.checked })} />}
            label="Bills go to somebody else, such as a landlord or an agent"
          />
        )}
        {draft.billed && (
          <>
            <Columns>
              {(["name", "mail"] as const).map((name) => (
                <Field
                  key={name}
                  label={name === "name" ? "Bill to" : "Their email"}
                  value={draft.bill[name]}
                  onChange={(e) => set({ bill: { ...draft.bill, [name]: e.target.value } })}
                  wrong={wrong(`/bill/${name}`)}
                />
              ))}
            </Columns>
            <Field
              label="Their address"
              value={draft.bill.address}
              onChange={(e) => set({ bill: { ...draft.bill, address: e.target.value } })}
              wrong={wrong("/bill/address")}
            />
          </>
        )}
      </FormSection>
      <FormSection title="What they agreed to" note="As they told you; the words and the day are kept.">
        <FormControlLabel
          control={<Checkbox checked={draft.reminders} onChange={(e) => set({ reminders: e.target.checked })} />}
          label="Reminders before a visit"
        />
        <FormControlLabel
          control={<Checkbox checked={draft.offers} onChange={(e) => set({ offers: e.target.checked })} />}
          label="Offers and news"
        />
      </FormSection>
    </FormFrame>
  );
}

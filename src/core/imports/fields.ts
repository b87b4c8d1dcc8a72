import { isMailAddress } from "@/core/people/mail-address";
/** What can be imported. */
export type ImportKind = "customers" | "services" | "extras" | "prices" | "repeats" | "bank lines";

export interface ImportField {
  id: string;
  /** As a person reads it. */
  name: string;
  /** Heads of columns that mean this, in small letters without anything between. */
  heads: readonly string[];
  /** Whether a cell looks like it, where that can be seen. */
  looks?: (cell: string) => boolean;
}

const isPhone = (cell: string): boolean =>
  /^[+\d ()./-]+$/.test(cell) && cell.replace(/\D/g, "").length >= 6 && !isDay(cell);
const isDay = (cell: string): boolean => /^\d{1,4}[./-]\d{1,2}[./-]\d{1,4}$/.test(cell);

const field = (id: string, name: string, heads: string, looks?: ImportField["looks"]): ImportField => ({
  id,
  name,
  heads: heads.split(" "),
  ...(looks && { looks }),
});

const customers: readonly ImportField[] = [
  field("name", "Name", "name fullname customer customername client clientname contact contactname displayname"),
  field("firstName", "First name", "firstname forename givenname first"),
  field("lastName", "Last name", "lastname surname familyname last"),
  field("company", "Company", "company companyname organisation organization business firm"),
  field(
    "phone",
    "Phone",
    "phone telephone tel mobile cell phonenumber mobilenumber mobilephone telephonenumber phone1 contactnumber",
    isPhone,
  ),
  field("mail", "Email", "email mail emailaddress mailaddress email1", isMailAddress),
  field("line", "Address", "address street streetaddress address1 addressline1 siteaddress serviceaddress location"),
  field("houseNumber", "House number", "housenumber number houseno no streetnumber"),
  field("town", "Town", "town city village district locality"),
  field("postcode", "Postcode", "postcode zip zipcode postalcode postal pcode"),
  field("siteName", "Site name", "site sitename property propertyname"),
  field("access", "Getting in", "gettingin access accessnotes entry keys gate gatecode"),
  field("parking", "Parking", "parking parkingnotes"),
  field("tags", "Tags", "tags tag labels label group groups category categories type"),
  field("source", "Source", "source leadsource howheard heardofus referral referredby"),
  field(
    "technicianNote",
    "Note for technicians",
    "notefortechnicians techniciannote jobnotes note notes comment comments remarks",
  ),
  field(
    "insideNote",
    "Note for inside",
    "noteforinside insidenote internalnote internalnotes privatenote privatenotes officenotes",
  ),
  field("reachedBy", "Reached by", "reachedby preferredcontact contactby contactmethod preferredcontactmethod"),
  field("paymentDays", "Days to pay", "daystopay paymentdays terms paymentterms netdays"),
  field("billName", "Bill to", "billto billname billingname invoiceto payer"),
  field("billMail", "Bill email", "billemail billingemail invoiceemail accountsemail"),
  field("billAddress", "Bill address", "billaddress billingaddress invoiceaddress"),
  field("billing", "Billed", "billed billing billingrhythm invoicing"),
  field("paymentFrom", "Due from", "duefrom paymentfrom"),
  field("taxKind", "Tax", "tax taxkind taxstatus"),
  field("taxNumber", "Tax number", "taxnumber vatnumber vatid vat taxid"),
  field("language", "Language", "language preferredlanguage"),
  field("contacts", "Contacts", "contacts contactpersons others"),
  field(
    "phone2",
    "Second phone",
    "phone2 secondphone otherphone alternatephone homephone workphone phoneother mobile2",
    isPhone,
  ),
  field("phone3", "Third phone", "phone3 thirdphone businessphone officephone"),
  field(
    "contact2",
    "Contact person",
    "contact2 contactperson secondcontact sitecontact keyholder tenant tenantname caretaker",
  ),
  field(
    "contact2Phone",
    "Contact person’s phone",
    "contact2phone contactpersonphone secondcontactphone sitecontactphone keyholderphone tenantphone",
    isPhone,
  ),
  field(
    "contact2Mail",
    "Contact person’s email",
    "contact2email contactpersonemail secondcontactemail sitecontactemail tenantemail mail2 email2",
  ),
  field("reminders", "Reminders", "reminders reminder"),
  field("offers", "Offers", "offers marketing newsletter marketingconsent optin"),
  field(
    "since",
    "Customer since",
    "customersince since created createdon createdat dateadded added clientsince",
    isDay,
  ),
];

const code = field("code", "Code", "code shortcode servicecode abbreviation");
const price = field("price", "Price", "price amount rate unitprice sellprice netprice fee");
const tax = field("tax", "Tax, %", "tax vat taxrate vatrate taxpercent");
const category = field("category", "Category", "category group type section");

const services: readonly ImportField[] = [
  field("name", "Name", "name service servicename title item"),
  code,
  category,
  price,
  tax,
  field("minutes", "Minutes", "minutes duration durationmin durationminutes time length mins"),
  field("description", "Description", "description details text notes"),
];

const extras: readonly ImportField[] = [
  field("name", "Name", "name extra part product item material title"),
  field("unit", "Unit", "unit per uom unitofmeasure"),
  price,
  field("cost", "What it costs us", "cost costprice buyprice purchaseprice costs"),
  tax,
];

const prices: readonly ImportField[] = [
  field("name", "Service or extra", "name service extra item product title servicename description"),
  code,
  category,
  field("price", "New price", "newprice price amount rate unitprice"),
];

const repeats: readonly ImportField[] = [
  field("name", "Customer", "customer name customername client clientname"),
  field("mail", "Email", "email mail emailaddress", isMailAddress),
  field("phone", "Phone", "phone telephone mobile tel", isPhone),
  field("site", "Address", "address site street location line siteaddress"),
  field("service", "Service", "service job what work servicename"),
  field("rule", "How often", "howoften rule rrule frequency every recurrence repeats interval"),
  field("start", "From", "from start startdate begins first next nextdate nextvisit", isDay),
  field("window", "Window", "window time between hours arrival"),
  field("technician", "Technician", "technician who by worker usually"),
  field("price", "Price a visit", "price pricevisit amount rate fee"),
];

const bankLines: readonly ImportField[] = [
  field("date", "Date", "date bookingdate booked posted posteddate transactiondate valuedate valuta day", isDay),
  field("amount", "Amount", "amount sum value betrag netamount"),
  field("in", "Came in", "paidin credit creditamount in moneyin deposit"),
  field("out", "Went out", "paidout debit debitamount out moneyout withdrawal"),
  field("currency", "Currency", "currency ccy"),
  field("name", "Name", "name payer payee counterparty counterpartyname party account accountname from"),
  field(
    "words",
    "What it says",
    "words description details reference text memo purpose narrative remittance paymentreference message",
  ),
  field(
    "reference",
    "The bank’s number",
    "bankreference transactionid id bankid uniqueid entryreference transactionnumber",
  ),
  field("nth", "Same line", "sameline"),
];

export const fieldsOf: Record<ImportKind, readonly ImportField[]> = {
  customers,
  services,
  extras,
  prices,
  repeats,
  "bank lines": bankLines,
};

/** The one thing without which there is nothing to import. */
export const neededOf: Record<ImportKind, readonly (readonly string[])[]> = {
  customers: [["name", "firstName", "lastName", "company"]],
  services: [["name"], ["price"], ["minutes"]],
  extras: [["name"], ["price"]],
  prices: [["name", "code"], ["price"]],
  repeats: [["name", "mail", "phone"], ["service"], ["rule"]],
  "bank lines": [["date"], ["amount", "in", "out"]],
};

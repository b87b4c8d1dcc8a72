import { type Minor, minorDigits, sum } from "@/core/money/amounts";
import { categoryOf, netOf, type Paper, type PaperLine, type Party, taxesOf } from "@/core/money/papers";
import { countryOf } from "@/core/people/phones";
import { create } from "xmlbuilder2";

/**
 * An invoice or a credit note as UBL 2.1, by the rules of EN 16931: net lines, tax by category and rate, and totals that
 * are their sums. Prices that include tax are given net. What was paid before is the prepaid amount.
 */
export function paperUbl(paper: Paper): string {
  const isNote = paper.kind === "credit note";
  const root = isNote ? "CreditNote" : "Invoice";
  const money = amountsIn(paper.currency);
  const taxes = taxesOf(paper);
  const netMinor = netOf(paper);
  const taxMinor = sum(taxes.map((tax) => tax.taxMinor));
  const prepaidMinor = paper.paidMinor + paper.creditedMinor;
  const quantity = isNote ? "cbc:CreditedQuantity" : "cbc:InvoicedQuantity";
  const document = {
    [root]: {
      "@xmlns": `urn:oasis:names:specification:ubl:schema:xsd:${root}-2`,
      "@xmlns:cac": "urn:oasis:names:specification:ubl:schema:xsd:CommonAggregateComponents-2",
      "@xmlns:cbc": "urn:oasis:names:specification:ubl:schema:xsd:CommonBasicComponents-2",
      "cbc:CustomizationID": "urn:cen.eu:en16931:2017",
      "cbc:ID": paper.label,
      "cbc:IssueDate": paper.issued,
      ...(paper.due && !isNote && { "cbc:DueDate": paper.due }),
      ...(isNote ? { "cbc:CreditNoteTypeCode": "381" } : { "cbc:InvoiceTypeCode": "380" }),
      ...noteOf(paper),
      "cbc:DocumentCurrencyCode": paper.currency,
      ...(paper.about && { "cac:BillingReference": { "cac:InvoiceDocumentReference": { "cbc:ID": paper.about } } }),
      "cac:AccountingSupplierParty": { "cac:Party": sellerParty(paper) },
      "cac:AccountingCustomerParty": { "cac:Party": partyOf(paper.buyer, null, countryOfBuyer(paper)) },
      ...(paper.seller.bankAccount && {
        "cac:PaymentMeans": {
          // Credit transfer.
          "cbc:PaymentMeansCode": "30",
          "cbc:PaymentID": paper.label,
          "cac:PayeeFinancialAccount": { "cbc:ID": paper.seller.bankAccount.replaceAll(" ", "") },
        },
      }),
      // Something to pay needs a day or terms (BR-CO-25); a credit note has no day.
      ...(isNote && {
        "cac:PaymentTerms": { "cbc:Note": "Set off against what is open, or paid back." },
      }),
      "cac:TaxTotal": {
        "cbc:TaxAmount": money(taxMinor),
        "cac:TaxSubtotal": taxes.map(({ category, taxBp, netMinor: net, taxMinor: tax }) => ({
          "cbc:TaxableAmount": money(net),
          "cbc:TaxAmount": money(tax),
          "cac:TaxCategory": categoryNode(category, taxBp, paper.taxWords),
        })),
      },
      "cac:LegalMonetaryTotal": {
        "cbc:LineExtensionAmount": money(netMinor),
        "cbc:TaxExclusiveAmount": money(netMinor),
        "cbc:TaxInclusiveAmount": money(netMinor + taxMinor),
        ...(prepaidMinor !== 0 && { "cbc:PrepaidAmount": money(prepaidMinor) }),
        "cbc:PayableAmount": money(netMinor + taxMinor - prepaidMinor),
      },
      [isNote ? "cac:CreditNoteLine" : "cac:InvoiceLine"]: paper.lines.map((line, i) => ({
        "cbc:ID": i + 1,
        [quantity]: { "@unitCode": "C62", "#": signedQuantity(line) },
        "cbc:LineExtensionAmount": money(line.amountMinor - line.taxMinor),
        "cac:Item": {
          "cbc:Name": line.description,
          "cac:ClassifiedTaxCategory": categoryNode(categoryOf(line.taxBp, paper), line.taxBp, ""),
        },
        "cac:Price": { "cbc:PriceAmount": { "@currencyID": paper.currency, "#": netPrice(line, paper.currency) } },
      })),
    },
  };
  return create({ version: "1.0", encoding: "UTF-8" }, document).end({ prettyPrint: true });
}

const amountsIn = (currency: string) => (minor: Minor) => ({
  "@currencyID": currency,
  "#": (minor / 10 ** minorDigits(currency)).toFixed(minorDigits(currency)),
});

/** A price is never below nothing: a line that takes something off has a quantity below nothing. */
const signedQuantity = ({ quantity, amountMinor }: PaperLine): number =>
  amountMinor < 0 ? -Math.abs(quantity) : quantity;

/** The price of one, net, so exact that it comes to the line's net amount again. */
const netPrice = ({ quantity, amountMinor, taxMinor }: PaperLine, currency: string): string =>
  String(Number((Math.abs(amountMinor - taxMinor) / Math.abs(quantity) / 10 ** minorDigits(currency)).toFixed(8)));

function noteOf({ before, after }: Paper) {
  const words = [before, after].filter(Boolean).join("\n");
  return words && { "cbc:Note": words };
}

const categoryNode = (category: string, taxBp: number, why: string) => ({
  "cbc:ID": category,
  "cbc:Percent": taxBp / 100,
  ...(why &&
    (category === "AE" || category === "E") && {
      ...(category === "AE" && { "cbc:TaxExemptionReasonCode": "VATEX-EU-AE" }),
      "cbc:TaxExemptionReason": why,
    }),
  "cac:TaxScheme": { "cbc:ID": "VAT" },
});

const sellerParty = ({ seller }: Paper) => partyOf(seller, seller.registration, countryOfSeller(seller));

const partyOf = ({ name, address, taxNumber, mail, phone }: Party, registration: string | null, country: string) => ({
  ...(mail && { "cbc:EndpointID": { "@schemeID": "EM", "#": mail } }),
  "cac:PartyName": { "cbc:Name": name },
  "cac:PostalAddress": {
    ...(address[0] && { "cbc:StreetName": address[0] }),
    ...(address.length > 2 && { "cbc:AdditionalStreetName": address.slice(1, -1).join(", ") }),
    ...(address.length > 1 && { "cbc:CityName": address.at(-1) }),
    "cac:Country": { "cbc:IdentificationCode": country },
  },
  ...(taxNumber && { "cac:PartyTaxScheme": { "cbc:CompanyID": taxNumber, "cac:TaxScheme": { "cbc:ID": "VAT" } } }),
  "cac:PartyLegalEntity": { "cbc:RegistrationName": name, ...(registration && { "cbc:CompanyID": registration }) },
  ...(registration !== null && {
    "cac:Contact": {
      "cbc:Name": name,
      ...(phone && { "cbc:Telephone": phone }),
      ...(mail && { "cbc:ElectronicMail": mail }),
    },
  }),
});

const countryOfTaxNumber = (taxNumber: string): string | undefined => /^[A-Z]{2}/.exec(taxNumber)?.[0];

/** A country is not asked for: it is that of the tax number, or else of the telephone; "ZZ" is nowhere in particular. */
const countryOfSeller = ({ taxNumber, phone }: Party): string =>
  countryOfTaxNumber(taxNumber) ?? countryOf(phone) ?? "ZZ";

/** Whoever has no tax number is taken to live where the business is. */
const countryOfBuyer = ({ buyer, seller }: Paper): string =>
  countryOfTaxNumber(buyer.taxNumber) ?? countryOfSeller(seller);

import { moneyWords } from "@/core/money/amounts";
import { netOf, type Paper, type PaperLine, paperTitle, taxesOf } from "@/core/money/papers";
import { dateWords } from "@/core/time/words";
import { createRequire } from "node:module";
import path from "node:path";
import PdfPrinter from "pdfmake";
import type { Content, TDocumentDefinitions } from "pdfmake/interfaces";

const ink = "#1d2624";
const ash = "#5b6663";
const line = "#d9d4c7";
/** One A4 page, in points. */
const margin = { side: 56, top: 56, bottom: 64 };

/** A paper as PDF, A4: one page where it fits, pages numbered where it does not. `mark` is the business's logo. */
export function paperPdf(paper: Paper, mark: { mime: string; bytes: Buffer } | null): Promise<Buffer> {
  const document = printer().createPdfKitDocument(definitionOf(paper, mark));
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = [];
    document.on("data", (chunk: Buffer) => chunks.push(chunk));
    document.on("end", () => resolve(Buffer.concat(chunks)));
    document.on("error", reject);
    document.end();
  });
}

function definitionOf(paper: Paper, mark: { mime: string; bytes: Buffer } | null): TDocumentDefinitions {
  const { seller } = paper;
  return {
    pageSize: "A4",
    pageMargins: [margin.side, margin.top, margin.side, margin.bottom],
    info: { title: paperTitle(paper), author: seller.name },
    defaultStyle: { font: "Latin", fontSize: 10, color: ink, lineHeight: 1.25 },
    footer: (page, pages) => ({
      margin: [margin.side, 16, margin.side, 0],
      columns: [
        text(footOf(paper), { fontSize: 8, color: ash, width: "*" }),
        ...(pages > 1
          ? [
              text(`${page} of ${pages}`, {
                fontSize: 8,
                color: ash,
                width: "auto" as const,
                alignment: "right" as const,
              }),
            ]
          : []),
      ],
      columnGap: 16,
    }),
    content: [
      headOf(paper, mark),
      { ...text(paperTitle(paper), { fontSize: 20, bold: true }), margin: [0, 24, 0, 6] },
      factsOf(paper),
      ...(paper.before ? [{ ...text(paper.before), margin: [0, 10, 0, 0] as [number, number, number, number] }] : []),
      ...(paper.kind === "statement" ? [entriesOf(paper)] : [linesOf(paper), totalsOf(paper)]),
      ...(paper.taxWords
        ? [{ ...text(paper.taxWords), margin: [0, 12, 0, 0] as [number, number, number, number] }]
        : []),
      ...(paper.after ? [{ ...text(paper.after), margin: [0, 12, 0, 0] as [number, number, number, number] }] : []),
      ...(paper.signature ? [signedOf(paper.signature)] : []),
    ],
  };
}

function headOf({ seller, buyer }: Paper, mark: { mime: string; bytes: Buffer } | null): Content {
  return {
    columns: [
      {
        width: "*",
        stack: [
          text(buyer.name, { bold: true }),
          ...buyer.address.map((one) => text(one)),
          ...(buyer.taxNumber ? [text(`Tax number ${buyer.taxNumber}`, { color: ash })] : []),
        ],
      },
      {
        width: 200,
        stack: [
          ...(mark
            ? [
                {
                  image: `data:${mark.mime};base64,${mark.bytes.toString("base64")}`,
                  fit: [120, 48] as [number, number],
                  margin: [0, 0, 0, 6] as [number, number, number, number],
                },
              ]
            : []),
          text(seller.name, { bold: true }),
          ...seller.address.map((one) => text(one)),
          ...[seller.phone, seller.mail, seller.site].filter(Boolean).map((one) => text(one, { color: ash })),
        ],
      },
    ],
    columnGap: 24,
  };
}

function factsOf(paper: Paper): Content {
  const facts: [string, string][] = [
    [paper.kind === "statement" ? "Until" : "Date", dateWords(paper.issued)],
    ...(paper.due
      ? ([[paper.kind === "quote" ? "Stands until" : "Due", dateWords(paper.due)]] as [string, string][])
      : []),
    ...(paper.parts ?? []).map(({ due, amountMinor }, i): [string, string] => [
      `Part ${i + 1}`,
      `${moneyWords(amountMinor, paper.currency)} until ${dateWords(due)}`,
    ]),
    ...(paper.about ? ([["For invoice", paper.about]] as [string, string][]) : []),
    ...(paper.place ? ([["Where", paper.place]] as [string, string][]) : []),
  ];
  return {
    table: { body: facts.map(([name, value]) => [text(name, { color: ash }), text(value)]) },
    layout: {
      defaultBorder: false,
      paddingLeft: () => 0,
      paddingRight: () => 12,
      paddingTop: () => 1,
      paddingBottom: () => 1,
    },
  };
}

/** Lines between rows only, and a heavier one under the names of the columns, which stand on each page. */
const ruled = {
  hLineWidth: (i: number) => (i === 0 ? 0 : i === 1 ? 1 : 0.5),
  vLineWidth: () => 0,
  hLineColor: (i: number) => (i === 1 ? ink : line),
  paddingLeft: (i: number) => (i === 0 ? 0 : 8),
  paddingRight: () => 0,
  paddingTop: () => 4,
  paddingBottom: () => 4,
};
const right = { alignment: "right" as const };

function linesOf(paper: Paper): Content {
  const amount = (minor: number) => moneyWords(minor, paper.currency);
  const isReceipt = paper.kind === "receipt";
  const head = isReceipt ? ["What", "Amount"] : ["What", "Quantity", "Price", "Tax", "Amount"];
  return {
    margin: [0, 16, 0, 0],
    table: {
      headerRows: 1,
      dontBreakRows: true,
      widths: isReceipt ? ["*", 90] : ["*", 52, 72, 40, 80],
      body: [
        head.map((name, i) => text(name, { color: ash, ...(i > 0 && right) })),
        ...paper.lines.map((one) =>
          isReceipt
            ? [text(one.description), text(amount(one.amountMinor), right)]
            : [
                text(whatOf(one)),
                text(String(one.quantity), right),
                text(amount(Math.round(one.unitMinor)), right),
                text(`${one.taxBp / 100}%`, right),
                text(amount(shownAmount(one, paper)), right),
              ],
        ),
      ],
    },
    layout: ruled,
  };
}

/** What a line comes to, as its price is written: with tax, or without. */
const shownAmount = ({ amountMinor, taxMinor }: PaperLine, { pricesIncludeTax }: Paper): number =>
  pricesIncludeTax ? amountMinor : amountMinor - taxMinor;

const whatOf = ({ description, date, discountBp }: PaperLine): string =>
  [description, date && dateWords(date), discountBp > 0 && `${discountBp / 100}% off`].filter(Boolean).join(", ");

function totalsOf(paper: Paper): Content {
  const amount = (minor: number) => moneyWords(minor, paper.currency);
  const bold = { bold: true };
  const rows: [Content, Content][] = [];
  const row = (name: string, minor: number, how: object = {}) =>
    rows.push([text(name, { ...how, ...right }), text(amount(minor), { ...how, ...right })]);
  if (paper.kind !== "receipt") {
    row("Net", netOf(paper));
    for (const { taxBp, netMinor, taxMinor } of taxesOf(paper))
      row(`Tax ${taxBp / 100}% on ${amount(netMinor)}`, taxMinor);
  }
  row("Total", paper.totalMinor, bold);
  if (paper.kind === "invoice") {
    if (paper.paidMinor) row("Paid", -paper.paidMinor);
    if (paper.creditedMinor) row("Credited", -paper.creditedMinor);
    if (paper.openMinor !== paper.totalMinor) row("To pay", paper.openMinor, bold);
  }
  return {
    margin: [0, 8, 0, 0],
    // The sums stay together.
    unbreakable: true,
    columns: [
      { width: "*", text: "" },
      {
        width: 300,
        table: { widths: ["*", 90], body: rows },
        layout: { defaultBorder: false, paddingTop: () => 2, paddingBottom: () => 2, paddingRight: () => 0 },
      },
    ],
  };
}

function entriesOf(paper: Paper): Content {
  const amount = (minor: number) => moneyWords(minor, paper.currency);
  const balance = paper.totalMinor;
  return {
    stack: [
      {
        margin: [0, 16, 0, 8],
        table: {
          headerRows: 1,
          dontBreakRows: true,
          widths: [110, "*", 80, 80],
          body: [
            ["Day", "What", "Amount", "Balance"].map((name, i) => text(name, { color: ash, ...(i > 1 && right) })),
            ...paper.entries.map((one) => [
              text(dateWords(one.date)),
              text(one.words),
              text(amount(one.amountMinor), right),
              text(amount(one.balanceMinor), right),
            ]),
          ],
        },
        layout: ruled,
      },
      text(
        balance > 0
          ? `To pay: ${amount(balance)}`
          : balance < 0
            ? `In your favour: ${amount(-balance)}`
            : "Nothing is open.",
        {
          bold: true,
          ...right,
        },
      ),
    ],
  };
}

const signedOf = ({ by, drawing }: NonNullable<Paper["signature"]>): Content => ({
  margin: [0, 20, 0, 0],
  unbreakable: true,
  stack: [{ image: drawing, fit: [180, 80] }, text(`Signed by ${by}`, { color: ash })],
});

const footOf = ({ seller }: Paper): string =>
  [
    seller.name,
    seller.registration && `Registration ${seller.registration}`,
    seller.taxNumber && `Tax number ${seller.taxNumber}`,
    seller.bankAccount && `Account ${seller.bankAccount}`,
  ]
    .filter(Boolean)
    .join(" · ");

type How = { fontSize?: number; bold?: boolean; color?: string; alignment?: "right"; width?: "*" | "auto" };

/** Text in the fonts that ship with the application: letters beyond Western Europe stand in a file of their own. */
function text(words: string, how: How = {}) {
  const runs = words.match(/[\u0100-\u024f\u1e00-\u1eff]+|[^\u0100-\u024f\u1e00-\u1eff]+/g) ?? [""];
  return {
    text: runs.map((run) => ({ text: run, font: /^[\u0100-\u024f\u1e00-\u1eff]/.test(run) ? "LatinExt" : "Latin" })),
    ...how,
  };
}

let made: PdfPrinter | null = null;
function printer(): PdfPrinter {
  const files = path.join(
    path.dirname(
      createRequire(path.join(process.cwd(), "package.json")).resolve(
        "@fontsource/atkinson-hyperlegible-next/package.json",
      ),
    ),
    "files",
  );
  const font = (subset: string) => ({
    normal: path.join(files, `atkinson-hyperlegible-next-${subset}-400-normal.woff`),
    bold: path.join(files, `atkinson-hyperlegible-next-${subset}-700-normal.woff`),
  });
  return (made ??= new PdfPrinter({ Latin: font("latin"), LatinExt: font("latin-ext") }));
}

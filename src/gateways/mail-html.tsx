import type { Language } from "@/core/messages/languages";
import { Body } from "@react-email/body";
import { Button } from "@react-email/button";
import { Container } from "@react-email/container";
import { Head } from "@react-email/head";
import { Hr } from "@react-email/hr";
import { Html } from "@react-email/html";
import { Img } from "@react-email/img";
import { Link } from "@react-email/link";
import { Preview } from "@react-email/preview";
import { Text } from "@react-email/text";
import { Fragment, type ReactNode } from "react";
import { renderToStaticMarkup } from "react-dom/server.edge";
import type { MailParts } from "./mail-parts";

/** A mail as HTML that old clients read too: tables and styles in place, one column, one button for its link. */
export const mailHtml = (parts: MailParts): string => doctype + renderToStaticMarkup(<Mail {...parts} />);

/** Old mail programs lay tables out by it. */
const doctype =
  '<!DOCTYPE html PUBLIC "-//W3C//DTD XHTML 1.0 Transitional//EN" "http://www.w3.org/TR/xhtml1/DTD/xhtml1-transitional.dtd">';

const ink = { paper: "#FBFAF6", plaster: "#F1EEE6", line: "#DDD8CB", ink: "#1E2A28", ash: "#5E6A66", pine: "#24443F" };
const fonts = "Helvetica, Arial, sans-serif";
const openWords: Record<Language, string> = { en: "Open", es: "Abrir" };

function Mail({ subject, body, links, language, business, mark, accent, who, opened }: MailParts) {
  const colour = accent || ink.pine;
  const paragraphs = body.trim().split(/\n{2,}/);
  return (
    <Html lang={language}>
      <Head>
        <title>{subject}</title>
        <meta name="color-scheme" content="light" />
      </Head>
      <Preview>{plain(paragraphs.slice(1, 2).join(" ") || subject, links)}</Preview>
      <Body style={{ backgroundColor: ink.paper, color: ink.ink, fontFamily: fonts, margin: 0, padding: "24px 12px" }}>
        <Container
          style={{ maxWidth: 560, backgroundColor: "#ffffff", border: `1px solid ${ink.line}`, padding: "24px 28px" }}
        >
          {mark ? (
            <Img src={mark} alt={business.name} height={36} />
          ) : (
            <Text style={{ ...text, fontWeight: 700, fontSize: 19 }}>{business.name}</Text>
          )}
          <Hr style={{ borderColor: colour, borderTopWidth: 2, margin: "12px 0 18px" }} />
          {who && (
            <Img
              src={who.photo}
              alt={who.name}
              width={72}
              height={72}
              style={{ borderRadius: 36, objectFit: "cover", margin: "0 0 14px" }}
            />
          )}
          {paragraphs.map((words, i) => (
            <Paragraph
              key={i}
              words={words}
              links={links}
              colour={colour}
              open={openWords[language as Language] ?? openWords.en}
            />
          ))}
        </Container>
        <Container style={{ maxWidth: 560, padding: "12px 28px" }}>
          <Text style={{ ...text, fontSize: 13, color: ink.ash }}>
            {[business.name, business.address.replace(/\n/g, ", "), business.phone].filter(Boolean).join(" · ")}
          </Text>
        </Container>
        {opened && <Img src={opened} alt="" width={1} height={1} />}
      </Body>
    </Html>
  );
}

const text = { fontSize: 16, lineHeight: "24px", margin: "0 0 14px" };
const button = { color: "#ffffff", fontSize: 16, padding: "12px 22px", borderRadius: 6, textDecoration: "none" };

/** A paragraph; the first link of a mail that stands at the end of one is a button under it, every other one stays in its place. */
function Paragraph({
  words,
  links,
  colour,
  open,
}: {
  words: string;
  links: MailParts["links"];
  colour: string;
  open: string;
}) {
  const atEnd = Object.keys(links).find((placeholder) => words.split("\n")[0]!.trimEnd().endsWith(placeholder));
  if (!atEnd || atEnd === "{{stop_link}}") return <Text style={text}>{lines(words, links)}</Text>;
  const [first = "", ...more] = words.split("\n");
  const before = first.trimEnd().slice(0, -atEnd.length).trim();
  return (
    <>
      {before && <Text style={text}>{lines(before, links)}</Text>}
      <Button href={links[atEnd]!} style={{ ...button, backgroundColor: colour, margin: "0 0 14px" }}>
        {open}
      </Button>
      {more.length > 0 && <Text style={text}>{lines(more.join("\n"), links)}</Text>}
    </>
  );
}

const lines = (words: string, links: MailParts["links"]): ReactNode =>
  words.split("\n").map((line, i) => (
    <Fragment key={i}>
      {i > 0 && <br />}
      {withLinks(line, links)}
    </Fragment>
  ));

/** A line whose links can be followed. */
const withLinks = (line: string, links: MailParts["links"]): ReactNode =>
  line.split(/(\{\{\w+\}\})/).map((part, i) =>
    links[part] ? (
      <Link key={i} href={links[part]}>
        {links[part]}
      </Link>
    ) : (
      part
    ),
  );

const plain = (words: string, links: MailParts["links"]): string =>
  Object.keys(links)
    .reduce((left, placeholder) => left.replaceAll(placeholder, ""), words)
    .replace(/\s+/g, " ")
    .slice(0, 120);

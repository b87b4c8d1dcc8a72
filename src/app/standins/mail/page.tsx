import { standins } from "@/server/demo";
import { LinkBox } from "@/ui/link-box";
import { ink } from "@/ui/palette";
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import PostalMime from "postal-mime";
import { Reply } from "./reply";

export const metadata = { title: "Mail that was sent" };
const shown = 150;

/** The mail stand-in: every mail that went out, newest first, read from its .eml file. */
export default async function MailPage({ searchParams }: { searchParams: Promise<{ file?: string }> }) {
  const box = standins().mail;
  const { file } = await searchParams;
  const parse = async (name: string) => ({ name, mail: await PostalMime.parse(box.read(name)!) });
  const files = box.files();
  const mails = await Promise.all(files.slice(0, shown).map((f) => parse(f.name)));
  const open = file && files.some((f) => f.name === file) ? await parse(file) : mails[0];
  return (
    <Box component="main" sx={{ display: "flex", flexDirection: { xs: "column", md: "row" }, height: "100dvh" }}>
      <Box
        component="nav"
        aria-label="Mails"
        sx={{
          width: { md: 400 },
          height: { xs: "30dvh", md: "auto" },
          overflowY: "auto",
          borderRight: `1px solid ${ink.line}`,
          flex: "none",
        }}
      >
        <Typography variant="h2" component="h1" sx={{ p: 4 }}>
          Mail that was sent · {files.length}
        </Typography>
        {mails.map(({ name, mail }) => (
          <LinkBox
            key={name}
            href={`/standins/mail?file=${name}`}
            sx={{
              display: "block",
              px: 4,
              py: 2,
              borderTop: `1px solid ${ink.line}`,
              textDecoration: "none",
              color: ink.ink,
              bgcolor: name === open?.name ? ink.plaster : "transparent",
            }}
          >
            <Box sx={{ fontWeight: 650 }}>{mail.subject}</Box>
            <Box sx={{ fontSize: 13.5, color: ink.ash }}>{mail.to?.[0]?.address}</Box>
          </LinkBox>
        ))}
      </Box>
      <Box component="article" sx={{ p: { xs: 4, md: 8 }, flex: 1, minHeight: 0, overflowY: "auto" }}>
        {open ? (
          <>
            <Typography variant="h2">{open.mail.subject}</Typography>
            <Typography sx={{ color: ink.ash, mb: 4 }}>
              from {open.mail.from?.address} to {open.mail.to?.[0]?.address}
            </Typography>
            <Box sx={{ whiteSpace: "pre-wrap", maxWidth: 640, overflowWrap: "anywhere" }}>
              {linked(open.mail.text ?? "")}
            </Box>
            <Reply key={open.name} file={open.name} />
            {open.mail.html && (
              <Box
                component="iframe"
                title="As HTML"
                sandbox="allow-popups"
                srcDoc={open.mail.html}
                sx={{ width: "100%", maxWidth: 640, height: 560, mt: 6, border: `1px solid ${ink.line}` }}
              />
            )}
          </>
        ) : (
          <Typography>No mail has been sent yet.</Typography>
        )}
      </Box>
    </Box>
  );
}

const linked = (text: string) =>
  text.split(/(https?:\/\/\S+)/).map((part, i) =>
    i % 2 ? (
      <a key={i} href={part}>
        {part}
      </a>
    ) : (
      part
    ),
  );

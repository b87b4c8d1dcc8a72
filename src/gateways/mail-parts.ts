/** What a mail is made of. `body` is plain text with placeholders for its links. */
export interface MailParts {
  subject: string;
  body: string;
  links: Record<string, string>;
  language: string;
  business: { name: string; phone: string; address: string };
  /** Address of the business's logo. */
  mark: string | null;
  /** #rrggbb, or empty for our own. */
  accent: string;
  /** Who comes, with the address of their picture. */
  who?: { name: string; photo: string } | null;
  /** An address that is asked for when the mail is opened. */
  opened: string | null;
}

"use client";
import { type CampaignChannel, campaignChannels } from "@/core/messages/campaign-texts";
import type { Language } from "@/core/messages/languages";
import { channelNames } from "@/core/messages/purposes";
import { templateProblems } from "@/core/messages/templates";
import { without } from "@/ui/form-frame";
import { Field } from "@/ui/form-parts";
import { FormSection } from "@/ui/form-sections";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import { useRef, useState } from "react";
import { inserted, Legend, Preview, WhichWords } from "../../setup/messages/words-preview";
import type { CampaignDraft, CampaignView } from "./data";

type Texts = CampaignDraft["texts"];

/** Its words, by channel and language: they begin as those of the occasion. A channel whose words are taken away is not used. */
export function CampaignWords({
  view,
  texts,
  onTexts,
  wrong,
  language,
  onLanguage,
}: {
  view: CampaignView;
  texts: Texts;
  onTexts: (texts: Texts) => void;
  wrong: (pointer: string) => string | undefined;
  language: Language;
  onLanguage: (language: Language) => void;
}) {
  const [way, setWay] = useState<CampaignChannel>("mail");
  const field = useRef<HTMLTextAreaElement>(null);
  const words = texts[language]?.[way];
  const put = (next: { subject: string; body: string } | undefined) => {
    onTexts({ ...texts, [language]: { ...without(texts[language] ?? {}, way), ...(next && { [way]: next }) } });
  };
  const allowed = view.legend.map(({ name }) => name);
  const problems = words ? [...templateProblems(words.subject, allowed), ...templateProblems(words.body, allowed)] : [];
  const at = `/texts/${language}/${way}`;
  return (
    <FormSection title="Words" said={wrong("/texts")}>
      <WhichWords
        among={campaignChannels}
        channel={way}
        onChannel={setWay}
        language={language}
        onLanguage={onLanguage}
      />
      {words ? (
        <>
          {way === "mail" && (
            <Field
              label="Subject"
              value={words.subject}
              onChange={(e) => put({ ...words, subject: e.target.value })}
              wrong={wrong(`${at}/subject`)}
            />
          )}
          <Field
            label={way === "mail" ? "Email" : "Text message"}
            multiline
            minRows={way === "mail" ? 10 : 4}
            value={words.body}
            inputRef={field}
            onChange={(e) => put({ ...words, body: e.target.value })}
            wrong={problems[0] ?? wrong(`${at}/body`)}
          />
          <Legend
            fields={view.legend}
            onInsert={(named) => put({ ...words, body: inserted(field.current, words.body, named) })}
          />
          <Box>
            <Button size="small" onClick={() => put(undefined)}>
              Do not write by {channelNames[way]}
            </Button>
          </Box>
          <Preview
            which={{ occasion: "offer", channel: way, language }}
            words={words}
            currency={view.currency}
            visitId={null}
            ok={problems.length === 0}
            partMilli={view.partMilli}
          />
        </>
      ) : (
        <Button
          variant="outlined"
          sx={{ justifySelf: "start" }}
          onClick={() => put(view.starting.texts[language]?.[way] ?? { subject: "", body: "{{my_link}}" })}
        >
          Write by {channelNames[way]} too
        </Button>
      )}
    </FormSection>
  );
}

import { channelsOfCampaign, wordsOfCampaign } from "./campaign-texts";

const words = { subject: "Again?", body: "{{my_link}}" };
const texts = { en: { mail: words } };

it("writes by the channels for which it has words", () => {
  expect(channelsOfCampaign(texts)).toEqual(["mail"]);
  expect(wordsOfCampaign(texts, "mail", "en")).toBe(words);
  expect(wordsOfCampaign(texts, "text", "en")).toBeNull();
});

it("takes the occasion’s words in a language of which it has none, on the channels that it uses", () => {
  expect(wordsOfCampaign(texts, "mail", "es")).toBeUndefined();
  expect(wordsOfCampaign(texts, "text", "es")).toBeNull();
});

it("calls nobody", () => {
  expect(wordsOfCampaign(texts, "voice", "en")).toBeNull();
});

import type { Occasion } from "./occasions";
import type { StartingText } from "./starting-text";

/** The texts that a business starts with, in English. */
export const englishTexts: Record<Occasion, StartingText> = {
  booked: {
    mail: {
      subject: "Booked: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\n{{promise}} on {{day}} {{arrival}}: {{service}} {{where}}.\n\nEverything about this visit is here: {{my_link}}\n\nUntil then,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: booked for {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  received: {
    mail: {
      subject: "We have your booking: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nthank you. We have your booking for {{day}} {{arrival}}: {{service}} {{where}}. The time is kept for you, and one of us confirms it soon.\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: we have your booking for {{day}}, {{window}}. One of us confirms it soon. {{my_link}}",
  },
  approved: {
    mail: {
      subject: "Confirmed: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nyour booking stands: {{promise}} on {{day}} {{arrival}}, {{service}} {{where}}.\n\nEverything about this visit is here: {{my_link}}\n\nUntil then,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: confirmed, {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  proposed: {
    mail: {
      subject: "Another time: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nthe time you chose is not possible, but {{day}} {{arrival}} is. Does that suit you? Tell us here, or choose another time: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: we propose {{day}}, {{window}}, for {{service}}. Say yes or choose another time: {{my_link}}",
  },
  declined: {
    mail: {
      subject: "Not possible: {{service}} on {{day}}",
      body: "Hello {{customer}},\n\nwe are sorry that {{service}} on {{day}} is not possible: {{reason}}\n\nWhat you have paid goes back to your card. Call {{phone}} if we can help in another way.\n\n{{business}}\n",
    },
    text: "{{business}}: we are sorry, {{service}} on {{day}} is not possible: {{reason}} Call {{phone}} if we can help.",
  },
  moved: {
    mail: {
      subject: "New time: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nyour visit has a new time: {{day}} {{arrival}} (before: {{old}}). If that does not suit you, choose another one here: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: your visit now has a new time, {{day}}, {{window}} (before: {{old}}). {{my_link}}",
  },
  cancelled: {
    mail: {
      subject: "Cancelled: {{service}} on {{day}}",
      body: "Hello {{customer}},\n\nthe visit on {{day}}, {{window}}, is cancelled. Book another day here: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: the visit on {{day}}, {{window}}, is cancelled. Another day: {{my_link}}",
  },
  "deposit lapsed": {
    mail: {
      subject: "Not booked: the deposit did not arrive",
      body: "Hello {{customer}},\n\nthe deposit for {{service}} on {{day}} did not arrive, so the time is free again. Nothing was charged. You are welcome to book again.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: the deposit for {{day}} did not arrive, so the time is free again. Nothing was charged.",
  },
  "visit reminder": {
    mail: {
      subject: "Reminder: {{day}}, {{window}}, {{service}}",
      body: "Hello {{customer}},\n\na reminder that {{comes}} on {{day}} {{arrival}}: {{service}} {{where}}.{{#visits}}\n\nAnd on {{day}} {{arrival}}: {{service}}.{{/visits}}\n\nTell us that you will be there, or what we should know: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: reminder, {{comes}} on {{day}}, {{window}}, {{service}}.{{#visits}} And {{day}}, {{window}}, {{service}}.{{/visits}} {{my_link}}",
    voice:
      "Hello, this is {{business}}. A reminder that {{comes}} on {{day}} {{arrival}}, for {{service}}. Press 1 to confirm. If it does not suit you, please call {{phone}}.",
  },
  "please confirm": {
    mail: {
      subject: "Will you be there? {{day}}, {{window}}, {{service}}",
      body: "Hello {{customer}},\n\n{{comes}} on {{day}} {{arrival}}: {{service}} {{where}}.{{#visits}}\n\nAnd on {{day}} {{arrival}}: {{service}}.{{/visits}}\n\nPlease answer YES, or tell us here that you will be there or need another time: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{comes}} on {{day}}, {{window}}, {{service}}.{{#visits}} And {{day}}, {{window}}.{{/visits}} Answer C to confirm. Another time: {{my_link}}",
    voice:
      "Hello, this is {{business}}. We would like to know whether {{day}} {{arrival}} still suits you, for {{service}}. Press 1 to confirm, or press 2 and we call you back.",
  },
  "on the way": {
    mail: {
      subject: "On the way to you: {{service}}",
      body: "Hello {{customer}},\n\n{{#technician}}{{technician}} is on the way to you{{/technician}}{{^technician}}we are on the way to you{{/technician}} for {{service}}{{#expected}} and should be there around {{expected}}{{/expected}}.\n\nWho comes, and how to reach us: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{#technician}}{{technician}} is on the way to you{{/technician}}{{^technician}}we are on the way to you{{/technician}}{{#expected}}, there around {{expected}}{{/expected}}. {{my_link}}",
  },
  "running late": {
    mail: {
      subject: "We are {{minutes}} minutes late",
      body: "Hello {{customer}},\n\nwe are sorry: the visit before yours takes longer. {{#technician_first}}{{technician_first}} should be with you{{/technician_first}}{{^technician_first}}We should be with you{{/technician_first}} about {{minutes}} minutes later{{#expected}}, around {{expected}}{{/expected}}.\n\nIf that does not suit you, tell us: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: sorry, we are about {{minutes}} min late{{#expected}} and should be with you around {{expected}}{{/expected}}. {{my_link}}",
    voice:
      "Hello, this is {{business}}. We are sorry: we are about {{minutes}} minutes late{{#expected}} and should be with you around {{expected}}{{/expected}}. If that does not suit you, please call {{phone}}.",
  },
  "nobody home": {
    mail: {
      subject: "We missed you: {{service}}",
      body: "Hello {{customer}},\n\nwe were {{where}} today, {{window}}, for {{service}}, and nobody could let us in. Let us find another time: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: we were at your door and nobody could let us in. Another time: {{my_link}} or call {{phone}}.",
  },
  done: {
    mail: {
      subject: "Done: {{service}}",
      body: "Hello {{customer}},\n\n{{#technician}}{{technician}} was with you today{{/technician}}{{^technician}}we were with you today{{/technician}} for {{service}} {{where}}.{{#done}}\n\nWhat was done:\n{{done}}{{/done}}{{#note}}\n\n{{note}}{{/note}}\n\nEverything is kept here: {{my_link}}\n\nThank you,\n{{business}}\n{{phone}}\n",
    },
  },
  "please review": {
    mail: {
      subject: "How was it? {{service}}",
      body: "Hello {{customer}},\n\non {{day}} we were with you for {{service}}. Were you happy with it, or was something not right? Tell us in a minute: {{my_link}}\n\nWe read every word, and answer where something went wrong.\n\nThank you,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: how was {{service}}? Good or not, tell us in a minute: {{my_link}}",
  },
  "review answered": {
    mail: {
      subject: "Our answer: {{service}}",
      body: "Hello {{customer}},\n\nthank you for telling us how it was. Our answer:\n\n{{reply}}\n\nAll of it is here: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: thank you for telling us. {{reply}} {{my_link}}",
  },
  "coming again": {
    mail: {
      subject: "It is time again: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nit is time again: on {{day}} {{arrival}} {{comes}} for {{service}} {{where}}.\n\nDetails, and another time if this one does not suit you: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: it is time again, {{service}} on {{day}}, {{window}}. Another time: {{my_link}}",
  },
  "ask first": {
    mail: {
      subject: "Is it time again? {{service}}, around {{day}}",
      body: "Hello {{customer}},\n\nyour next {{service}} {{where}} would be due around {{day}}. Nothing is booked yet: choose a time that suits you, or tell us that you do not need it this time.\n\n{{my_link}}\n\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: {{service}} would be due around {{day}}. Choose a time, or say not this time: {{my_link}}",
  },
  "price review": {
    mail: {
      subject: "From {{day}}: {{service}}, {{price}}",
      body: "Hello {{customer}},\n\nfrom {{day}} on, {{service}} {{where}} is {{price}}. Until then it stays at {{old}}.\n\nAnything to ask? Call {{phone}}.\n\n{{business}}\n",
    },
  },
  offer: {
    mail: {
      subject: "{{service}} again?{{#off}} {{off}} off until {{until}}{{/off}}",
      body: "Hello {{customer_first}},\n\n{{#last_time}}we were last with you for {{service}} in {{last_time}}. {{/last_time}}May we come for {{service}} this time, too? These are the times we still have until {{until}}: {{my_link}}{{#off}}\n\nWith this link you pay {{off}} less.{{/off}}\n\n{{business}}\n{{phone}}\n\nNo more offers: {{stop_link}}\n",
    },
    text: "{{business}}: {{service}} again?{{#off}} {{off}} off.{{/off}} Our times until {{until}}: {{my_link}} STOP ends our texts.",
  },
  "wish come true": {
    mail: {
      subject: "Free now: {{day}}, {{window}}",
      body: "Hello,\n\na time that suits you is free now: {{day}}, {{window}}. Take it with one tap, before somebody else does:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{day}}, {{window}} is free now. Take it with one tap: {{my_link}}",
  },
  quote: {
    mail: {
      subject: "{{#old}}Your quote has changed{{/old}}{{^old}}Your quote{{/old}}: {{service}}, {{sum}}",
      body: "Hello {{customer}},\n\n{{#instead}}instead of your booking {{/instead}}we offer you {{service}} at {{site}} for {{sum}}, until {{until}}. Read it, choose a time and accept it here:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: our quote for {{service}}, {{sum}}: {{my_link}}",
  },
  "quote follow-up": {
    mail: {
      subject: "Our quote of {{sent}}",
      body: "Hello {{customer}},\n\nwe have not heard from you about our quote for the work at {{site}}. It stands until {{until}}; after that the price may be another. Read it again, choose a time or tell us no here:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: our quote stands until {{until}}. Yes or no: {{my_link}}",
  },
  "quote withdrawn": {
    mail: {
      subject: "Our quote to you",
      body: "Hello {{customer}},\n\nwe are sorry that our quote does not stand any more: {{reason}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "request declined": {
    mail: {
      subject: "Your request to {{business}}",
      body: "Hello {{customer}},\n\nwe are sorry that we cannot help with your request: {{reason}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  invoice: {
    mail: {
      subject: "Invoice {{invoice}}: {{open}}",
      body: "Hello {{customer}},\n\nthank you. Invoice {{invoice}} for {{service}} comes to {{total}}; {{open}} is open, due on {{due}}.\n\nSee it and pay here: {{my_link}}\n\n{{business}}\n",
    },
    text: "{{business}}: invoice {{invoice}}, {{open}}, due on {{due}}. See it and pay: {{my_link}}",
  },
  receipt: {
    mail: {
      subject: "Paid: {{amount}}",
      body: "Hello {{customer}},\n\nwe have received {{amount}} for {{service}}. Thank you.\n\n{{my_link}}\n\n{{business}}\n",
    },
  },
  "invoice coming": {
    mail: {
      subject: "Invoice {{invoice}} is due on {{due}}",
      body: "Hello {{customer}},\n\na word ahead: invoice {{invoice}} is due on {{due}}, and {{open}} is open. You can pay here: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "invoice reminder": {
    mail: {
      subject: "Reminder: invoice {{invoice}}, {{open}}",
      body: "Hello {{customer}},\n\ninvoice {{invoice}} was due on {{due}}, and {{open}} is still open. You can pay here: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\nIf it has crossed with your payment, forget this email.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: invoice {{invoice}} was due on {{due}}, {{open}} is open. Pay here: {{my_link}}",
  },
  "last reminder": {
    mail: {
      subject: "Last reminder: invoice {{invoice}}, {{open}}",
      body: "Hello {{customer}},\n\ninvoice {{invoice}} was due on {{due}}, and {{open}} is open in spite of our reminders. Please pay now: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\nIs something wrong with it, or do you need more time? Call {{phone}}: we find a way. Otherwise we will call you.\n\n{{business}}\n",
    },
    text: "{{business}}: last reminder, invoice {{invoice}}, {{open}} open since {{due}}. Pay or tell us: {{my_link}}",
  },
  "charge tomorrow": {
    mail: {
      subject: "On {{day}} we charge {{amount}} for invoice {{invoice}}",
      body: "Hello {{customer}},\n\nas you have agreed, {{amount}} for invoice {{invoice}} is charged to your {{card}} on {{day}}.\n\nIf that does not suit you, say so here before then, pay in another way or promise a day: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: on {{day}} we charge {{amount}} to your {{card}}, invoice {{invoice}}. Not this time? {{my_link}}",
  },
  "charge step": {
    mail: {
      subject: "Your bank wants you to confirm {{amount}}",
      body: "Hello {{customer}},\n\nyour bank asks you to confirm the charge of {{amount}} to your {{card}}. Please do so here: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: your bank wants you to confirm {{amount}}: {{my_link}}",
  },
  "charge failed": {
    mail: {
      subject: "We could not charge your card",
      body: "Hello {{customer}},\n\nyour {{card}} could not pay {{amount}}. Please pay with another card, or tell us when you can: {{my_link}}\n\nAnything we can help with? Call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: your {{card}} could not pay {{amount}}. Pay here: {{my_link}}",
  },
  "card expires": {
    mail: {
      subject: "Your {{card}} expires in {{month}}",
      body: "Hello {{customer}},\n\nthe {{card}} that you have left with us can be charged until the end of {{month}} only. Please leave another one here, so that nothing is missed: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: your {{card}} expires in {{month}}. Leave another one: {{my_link}}",
  },
  "answer understood": {
    mail: {
      subject: "Thank you: {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nthank you, {{day}} {{arrival}} is confirmed.{{#visits}}\n\nAnd {{day}} {{arrival}}: {{service}}.{{/visits}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: thank you, {{day}}, {{window}} is confirmed.{{#visits}} And {{day}}, {{window}}.{{/visits}}",
  },
  "other times": {
    mail: {
      subject: "Another time for {{service}}",
      body: "Hello {{customer}},\n\nno trouble. Choose another time here, or cancel: {{my_link}}\n\nOne of us reads your answer too.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: no trouble. Choose another time or cancel here: {{my_link}} One of us reads your answer too.",
  },
  stopped: {
    text: "{{business}}: you get no more texts from us. Write START to get them again, or call {{phone}}.",
  },
  started: { text: "{{business}}: you get our texts again. Write STOP to end them." },
  help: { text: "{{business}}, {{phone}}. Answer C to confirm a visit. STOP ends our texts." },
  question: {
    mail: {
      subject: "Your question to {{business}}",
      body: "Hello {{customer}},\n\nthank you for your question. One of us answers soon.{{#words}}\n\nYou wrote: {{words}}{{/words}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: thank you for your question. One of us answers soon.",
  },
  "new booking": {
    mail: {
      subject: "{{what}}: {{service}}, {{day}}, {{window}}",
      body: "{{who}}\n{{service}}, {{total}}\n{{day}}, {{window}}{{#more}}\n{{more}}{{/more}}{{#words}}\n“{{words}}”{{/words}}\n\n{{business}}\n",
    },
    text: "{{business}}: {{what}}: {{service}}, {{day}}, {{window}}. {{who}}.",
  },
  "office news": {
    mail: { subject: "{{what}}", body: "{{what}}\n{{who}}{{#more}}\n{{more}}{{/more}}\n\n{{business}}\n" },
    text: "{{business}}: {{what}}. {{who}}.",
  },
  "day changed": {
    mail: {
      subject: "{{day}} has changed",
      body: "{{#technician_first}}Hello {{technician_first}},\n\n{{/technician_first}}{{day}} is not as it was: {{what}}\n\n{{business}}\n",
    },
    text: "{{business}}, {{day}}: {{what}}",
  },
  "day ahead": {
    mail: {
      subject: "Tomorrow, {{day}}",
      body: "{{#technician_first}}Hello {{technician_first}},\n\n{{/technician_first}}this is {{day}}:{{#stops}}\n\n{{window}}, {{service}}\n{{who}}\n{{site}}{{/stops}}\n\n{{business}}\n",
    },
  },
  "day begins": {
    mail: {
      subject: "Today, {{day}}",
      body: "{{#technician_first}}Good morning {{technician_first}},\n\n{{/technician_first}}this is today:{{#stops}}\n\n{{window}}, {{service}}\n{{who}}\n{{site}}{{/stops}}{{#left_over}}\n\nLeft over: {{service}}, {{who}}, {{site}}{{/left_over}}\n\n{{business}}\n",
    },
  },
  "visit soon": { text: "{{business}}: {{window}}, {{service}}, {{who}}, {{site}}." },
  "to sign off": {
    mail: {
      subject: "To sign off: {{service}}, {{day}}",
      body: "{{#technician}}{{technician}} has{{/technician}}{{^technician}}Somebody has{{/technician}} closed a visit that needs your sign-off.\n\n{{service}}, {{day}}\n{{who}}\n{{site}}\n\n{{business}}\n",
    },
  },
  "daily summary": {
    mail: {
      subject: "{{business}}, {{day}}",
      body: "Today:{{#figures}}\n{{name}}: {{value}}{{/figures}}{{#needs}}\n\nTo do: {{what}}{{/needs}}\n\n{{business}}\n",
    },
  },
  "weekly summary": {
    mail: {
      subject: "{{business}}, the week up to {{day}}",
      body: "This week:{{#figures}}\n{{name}}: {{value}}{{/figures}}{{#needs}}\n\nTo do: {{what}}{{/needs}}\n\n{{business}}\n",
    },
  },
};

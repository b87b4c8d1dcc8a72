import type { Occasion } from "./occasions";
import type { StartingText } from "./starting-text";

/** The texts that a business starts with, in English. */
export const englishTexts: Record<Occasion, StartingText> = {
  booked: {
    mail: {
      subject: "Booked: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nYou are booked: {{promise}} on {{day}} {{arrival}}, {{service}} {{where}}.\n\nEverything about this visit is here: {{my_link}}\n\nUntil then,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: booked for {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  received: {
    mail: {
      subject: "We have your booking: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nThank you. We have your booking for {{day}} {{arrival}}: {{service}} {{where}}. We are holding this time for you and will confirm it soon.\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: we have your booking for {{day}}, {{window}}. We will confirm it soon. {{my_link}}",
  },
  approved: {
    mail: {
      subject: "Confirmed: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nYour booking is confirmed: {{promise}} on {{day}} {{arrival}}, {{service}} {{where}}.\n\nEverything about this visit is here: {{my_link}}\n\nUntil then,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: confirmed, {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  proposed: {
    mail: {
      subject: "Another time: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nWe can’t make the time you chose, but we can offer {{day}} {{arrival}}. Does that work? Tell us here, or choose another time: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: we can offer {{day}}, {{window}}, for {{service}}. Say yes or choose another time: {{my_link}}",
  },
  declined: {
    mail: {
      subject: "Not possible: {{service}} on {{day}}",
      body: "Hello {{customer}},\n\nSorry, we can’t do {{service}} on {{day}}.\n\n{{reason}}\n\nAnything you have paid goes back to your card. Call us on {{phone}} if we can help another way.\n\n{{business}}\n",
    },
    text: "{{business}}: sorry, we can’t do {{service}} on {{day}}. Call us on {{phone}} if we can help. Why: {{reason}}",
  },
  moved: {
    mail: {
      subject: "New time: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nYour visit has a new time: {{day}} {{arrival}} (before: {{old}}). If that doesn’t work for you, choose another one here: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: your visit now has a new time, {{day}}, {{window}} (before: {{old}}). {{my_link}}",
  },
  cancelled: {
    mail: {
      subject: "Cancelled: {{service}} on {{day}}",
      body: "Hello {{customer}},\n\nThe visit on {{day}}, {{window}}, is cancelled. Book another day here: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: the visit on {{day}}, {{window}}, is cancelled. Another day: {{my_link}}",
  },
  "deposit lapsed": {
    mail: {
      subject: "Not booked: the deposit did not arrive",
      body: "Hello {{customer}},\n\nThe deposit for {{service}} on {{day}} did not arrive, so the time is free again. Nothing was charged. You are welcome to book again.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: the deposit for {{day}} did not arrive, so the time is free again. Nothing was charged.",
  },
  "visit reminder": {
    mail: {
      subject: "Reminder: {{day}}, {{window}}, {{service}}",
      body: "Hello {{customer}},\n\nThis is a reminder that {{comes}} on {{day}} {{arrival}}: {{service}} {{where}}.{{#visits}}\n\nAnd on {{day}} {{arrival}}: {{service}}.{{/visits}}\n\nLet us know you’ll be there, or anything we should know: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: reminder, {{comes}} on {{day}}, {{window}}, {{service}}.{{#visits}} And {{day}}, {{window}}, {{service}}.{{/visits}} {{my_link}}",
    voice:
      "Hello, this is {{business}}. A reminder that {{comes}} on {{day}} {{arrival}}, for {{service}}. Press 1 to confirm. If that doesn’t work for you, please call {{phone}}.",
  },
  "please confirm": {
    mail: {
      subject: "Will you be there? {{day}}, {{window}}, {{service}}",
      body: "Hello {{customer}},\n\nAs agreed, {{comes}} on {{day}} {{arrival}}: {{service}} {{where}}.{{#visits}}\n\nAnd on {{day}} {{arrival}}: {{service}}.{{/visits}}\n\nPlease reply YES, or tell us here that you will be there or need another time: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{comes}} on {{day}}, {{window}}, {{service}}.{{#visits}} And {{day}}, {{window}}.{{/visits}} Reply YES to confirm. Another time: {{my_link}}",
    voice:
      "Hello, this is {{business}}. We would like to know whether {{day}} {{arrival}} still suits you, for {{service}}. Press 1 to confirm, or press 2 and we will call you back.",
  },
  "on the way": {
    mail: {
      subject: "On the way to you: {{service}}",
      body: "Hello {{customer}},\n\n{{#technician}}{{technician}} is on the way to you{{/technician}}{{^technician}}We are on the way to you{{/technician}} for {{service}}{{#expected}} and should be there around {{expected}}{{/expected}}.\n\nWho comes, and how to reach us: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{#technician}}{{technician}} is on the way to you{{/technician}}{{^technician}}we are on the way to you{{/technician}}{{#expected}}, there around {{expected}}{{/expected}}. {{my_link}}",
  },
  "running late": {
    mail: {
      subject: "We are {{minutes}} minutes late",
      body: "Hello {{customer}},\n\nSorry, the visit before yours is taking longer. {{#technician_first}}{{technician_first}} should be with you{{/technician_first}}{{^technician_first}}We should be with you{{/technician_first}} about {{minutes}} minutes later{{#expected}}, around {{expected}}{{/expected}}.\n\nIf that doesn’t work for you, tell us: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: sorry, we are about {{minutes}} min late{{#expected}} and should be with you around {{expected}}{{/expected}}. {{my_link}}",
    voice:
      "Hello, this is {{business}}. Sorry, we are about {{minutes}} minutes late{{#expected}} and should be with you around {{expected}}{{/expected}}. If that doesn’t work for you, please call {{phone}}.",
  },
  "nobody home": {
    mail: {
      subject: "We missed you: {{service}}",
      body: "Hello {{customer}},\n\nAbout {{service}} today, {{window}}: {{missed}}. Let’s find another time: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: {{missed}}. Another time: {{my_link}} or call {{phone}}.",
  },
  done: {
    mail: {
      subject: "Done: {{service}}",
      body: "Hello {{customer}},\n\n{{#technician}}{{technician}} was with you today{{/technician}}{{^technician}}We were with you today{{/technician}} for {{service}} {{where}}.{{#done}}\n\nWhat was done:\n{{done}}{{/done}}{{#note}}\n\n{{note}}{{/note}}\n\nEverything is kept here: {{my_link}}\n\nThank you,\n{{business}}\n{{phone}}\n",
    },
  },
  "please review": {
    mail: {
      subject: "How was it? {{service}}",
      body: "Hello {{customer}},\n\nOn {{day}} we were with you for {{service}}. Were you happy with it, or was something not right? Tell us in a minute: {{my_link}}\n\nWe read every word, and answer where something went wrong.\n\nThank you,\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: how was {{service}}? Good or not, tell us in a minute: {{my_link}}",
  },
  "review answered": {
    mail: {
      subject: "Our answer: {{service}}",
      body: "Hello {{customer}},\n\nThank you for telling us how it was. Our answer:\n\n{{reply}}\n\nAll of it is here: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: thank you for telling us. {{reply}} {{my_link}}",
  },
  "coming again": {
    mail: {
      subject: "Your next visit: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nYour next visit is due: on {{day}} {{arrival}} {{comes}} for {{service}} {{where}}.\n\nDetails, and another time if this one doesn’t work for you: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: your next visit is due, {{service}} on {{day}}, {{window}}. Another time: {{my_link}}",
  },
  "ask first": {
    mail: {
      subject: "Time for your next visit? {{service}}, around {{day}}",
      body: "Hello {{customer}},\n\nYour next visit for {{service}} {{where}} is due around {{day}}. Nothing is booked yet: choose a time that suits you, or skip it this time.\n\n{{my_link}}\n\nOr call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: {{service}} is due around {{day}}. Choose a time, or skip it this time: {{my_link}}",
  },
  "price review": {
    mail: {
      subject: "From {{day}}: {{service}}, {{price}}",
      body: "Hello {{customer}},\n\nFrom {{day}}, {{service}} {{where}} is {{price}}. Until then it stays at {{old}}.\n\nAnything to ask? Call {{phone}}.\n\n{{business}}\n",
    },
  },
  offer: {
    mail: {
      subject: "{{service}} again?{{#off}} {{off}} off until {{until}}{{/off}}",
      body: "Hello {{customer_first}},\n\n{{#last_time}}We were last with you for {{service}} in {{last_time}}. {{/last_time}}Would you like us to come again? Times still free until {{until}}: {{my_link}}{{#off}}\n\n{{off}} off if you book with this link.{{/off}}\n\n{{business}}\n{{phone}}\n\nNo more offers: {{stop_link}}\n",
    },
    text: "{{business}}: {{service}} again?{{#off}} {{off}} off.{{/off}} Our times until {{until}}: {{my_link}} STOP ends our texts.",
  },
  "wish come true": {
    mail: {
      subject: "Free now: {{day}}, {{window}}",
      body: "Hello,\n\nA time that suits you has come free: {{day}}, {{window}}. Book it here before it goes:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: {{day}}, {{window}} has come free. Book it here: {{my_link}}",
  },
  quote: {
    mail: {
      subject: "{{#old}}Your quote has changed{{/old}}{{^old}}Your quote{{/old}}: {{service}}, {{sum}}",
      body: "Hello {{customer}},\n\nHere is our quote{{#instead}}, in place of your booking{{/instead}}: {{service}} at {{site}} for {{sum}}, valid until {{until}}. Read it, choose a time and accept it here:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: our quote for {{service}}, {{sum}}: {{my_link}}",
  },
  "quote follow-up": {
    mail: {
      subject: "Our quote of {{sent}}",
      body: "Hello {{customer}},\n\nWe have not heard from you about our quote for the work at {{site}}. It is valid until {{until}}; after that the price may change. Read it again, choose a time, or let us know you don’t want it, here:\n\n{{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: our quote is valid until {{until}}. Yes or no: {{my_link}}",
  },
  "quote withdrawn": {
    mail: {
      subject: "Our quote to you",
      body: "Hello {{customer}},\n\nSorry, our quote is no longer valid.\n\n{{reason}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "request declined": {
    mail: {
      subject: "Your request to {{business}}",
      body: "Hello {{customer}},\n\nSorry, we can’t help with your request.\n\n{{reason}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  invoice: {
    mail: {
      subject: "Invoice {{invoice}}: {{open}}",
      body: "Hello {{customer}},\n\nThank you. Invoice {{invoice}} for {{service}} comes to {{total}}; {{open}} is still to pay, due on {{due}}.\n\nSee it and pay here: {{my_link}}\n\n{{business}}\n",
    },
    text: "{{business}}: invoice {{invoice}}, {{open}}, due on {{due}}. See it and pay: {{my_link}}",
  },
  receipt: {
    mail: {
      subject: "Paid: {{amount}}",
      body: "Hello {{customer}},\n\nWe have received {{amount}} for {{service}}. Thank you.\n\n{{my_link}}\n\n{{business}}\n",
    },
  },
  "invoice coming": {
    mail: {
      subject: "Invoice {{invoice}} is due on {{due}}",
      body: "Hello {{customer}},\n\nInvoice {{invoice}} is due on {{due}}, and {{open}} is still to pay. You can pay here: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "invoice reminder": {
    mail: {
      subject: "Reminder: invoice {{invoice}}, {{open}}",
      body: "Hello {{customer}},\n\nInvoice {{invoice}} was due on {{due}}, and {{open}} is still unpaid. You can pay here: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\nIf you have already paid, please ignore this email.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: invoice {{invoice}} was due on {{due}}, {{open}} is unpaid. Pay here: {{my_link}}",
  },
  "last reminder": {
    mail: {
      subject: "Last reminder: invoice {{invoice}}, {{open}}",
      body: "Hello {{customer}},\n\nInvoice {{invoice}} was due on {{due}}, and {{open}} is still unpaid after our reminders. Please pay now: {{my_link}}{{#others}}\n\n{{others}}{{/others}}\n\nIs something wrong with it, or do you need more time? Please call us on {{phone}}. Otherwise we will call you.\n\n{{business}}\n",
    },
    text: "{{business}}: last reminder, invoice {{invoice}}, {{open}} unpaid since {{due}}. Pay or tell us: {{my_link}}",
  },
  "charge tomorrow": {
    mail: {
      subject: "On {{day}} we charge {{amount}} for invoice {{invoice}}",
      body: "Hello {{customer}},\n\nAs you agreed, {{amount}} for invoice {{invoice}} will be charged to your {{card}} on {{day}}.\n\nIf that doesn’t work for you, say so here before then, pay another way, or tell us when you can pay: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: on {{day}} we charge {{amount}} to your {{card}}, invoice {{invoice}}. Not this time? {{my_link}}",
  },
  "charge step": {
    mail: {
      subject: "Please confirm your payment of {{amount}} to {{business}} with your bank",
      body: "Hello {{customer}},\n\nYour bank asks you to confirm your payment of {{amount}} to {{business}} with your {{card}}. Please do so here: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: please confirm your payment of {{amount}} with your bank: {{my_link}}",
  },
  "charge failed": {
    mail: {
      subject: "We could not charge your card",
      body: "Hello {{customer}},\n\nYour {{card}} could not pay {{amount}}. Please pay with another card, or tell us when you can: {{my_link}}\n\nAnything we can help with? Call {{phone}}.\n\n{{business}}\n",
    },
    text: "{{business}}: your {{card}} could not pay {{amount}}. Pay here: {{my_link}}",
  },
  "card expires": {
    mail: {
      subject: "Your {{card}} expires in {{month}}",
      body: "Hello {{customer}},\n\nThe {{card}} you saved with us expires at the end of {{month}}. Please add another one here, so that nothing is missed: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: your {{card}} expires in {{month}}. Add another one: {{my_link}}",
  },
  "answer understood": {
    mail: {
      subject: "Thank you: {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nThank you, {{day}} {{arrival}} is confirmed.{{#visits}}\n\nAnd {{day}} {{arrival}}: {{service}}.{{/visits}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: thank you, {{day}}, {{window}} is confirmed.{{#visits}} And {{day}}, {{window}}.{{/visits}}",
  },
  "other times": {
    mail: {
      subject: "Another time for {{service}}",
      body: "Hello {{customer}},\n\nNo problem. Choose another time here, or cancel: {{my_link}}\n\nWe will read your answer too.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: no problem. Choose another time or cancel here: {{my_link}} We will read your answer too.",
  },
  stopped: {
    text: "{{business}}: you will get no more texts from us. Reply START to get them again, or call {{phone}}.",
  },
  started: { text: "{{business}}: you will get our texts again. Reply STOP to end them." },
  help: { text: "{{business}}, {{phone}}. Reply YES to confirm a visit. STOP ends our texts." },
  question: {
    mail: {
      subject: "Your question to {{business}}",
      body: "Hello {{customer}},\n\nThank you for your question. We will answer soon.{{#words}}\n\nYou wrote: {{words}}{{/words}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: thank you for your question. We will answer soon.",
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
      body: "{{#technician_first}}Hello {{technician_first}},\n\n{{/technician_first}}{{day}} has changed: {{what}}\n\n{{business}}\n",
    },
    text: "{{business}}, {{day}}: {{what}}",
  },
  "day ahead": {
    mail: {
      subject: "Tomorrow, {{day}}",
      body: "{{#technician_first}}Hello {{technician_first}},\n\n{{/technician_first}}This is {{day}}:{{#stops}}\n\n{{window}}, {{service}}\n{{who}}\n{{site}}{{/stops}}\n\n{{business}}\n",
    },
  },
  "day begins": {
    mail: {
      subject: "Today, {{day}}",
      body: "{{#technician_first}}Good morning {{technician_first}},\n\n{{/technician_first}}This is today:{{#stops}}\n\n{{window}}, {{service}}\n{{who}}\n{{site}}{{/stops}}{{#left_over}}\n\nLeft over: {{service}}, {{who}}, {{site}}{{/left_over}}\n\n{{business}}\n",
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

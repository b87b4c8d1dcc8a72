import type { Template } from "./templates";

/** The texts a business starts with: a mail and a text for each occasion. */
export type Occasion =
  | "booked"
  | "moved"
  | "cancelled"
  | "coming again"
  | "ask first"
  | "price review"
  | "visit reminder"
  | "on the way"
  | "invoice"
  | "receipt"
  | "invoice reminder"
  | "invoice coming"
  | "last reminder"
  | "charge tomorrow"
  | "charge step"
  | "charge failed"
  | "card expires"
  | "deposit lapsed"
  | "received"
  | "proposed"
  | "declined";

export const standardTexts: Record<Occasion, { mail?: Template; text?: string }> = {
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
  },
  "coming again": {
    mail: {
      subject: "It is time again: {{service}} on {{day}}, {{window}}",
      body: "Hello {{customer}},\n\nit is time again: on {{day}} {{arrival}} {{comes}} for {{service}} {{where}}.\n\nDetails, and another time if this one does not suit you: {{my_link}}\nOr call {{phone}}.\n\n{{business}}\n",
    },
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
  "visit reminder": {
    mail: {
      subject: "Reminder: {{day}}, {{window}}, {{service}}",
      body: "Hello {{customer}},\n\na reminder that {{comes}} on {{day}} {{arrival}}: {{service}} {{where}}.\n\nTell us that you will be there, or what we should know: {{my_link}}\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: reminder, {{comes}} on {{day}}, {{window}}, {{service}}. {{my_link}}",
  },
  "on the way": { text: "{{business}}: {{technician}} is on the way to you, {{service}}. {{my_link}}" },
  invoice: {
    mail: {
      subject: "Invoice {{invoice}}: {{open}}",
      body: "Hello {{customer}},\n\nthank you. Invoice {{invoice}} for {{service}} comes to {{total}}; {{open}} is open, due on {{due}}.\n\nSee it and pay here: {{my_link}}\n\n{{business}}\n",
    },
  },
  receipt: {
    mail: {
      subject: "Paid: {{amount}}",
      body: "Hello {{customer}},\n\nwe have received {{amount}} for {{service}}. Thank you.\n\n{{my_link}}\n\n{{business}}\n",
    },
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
  "invoice coming": {
    mail: {
      subject: "Invoice {{invoice}} is due on {{due}}",
      body: "Hello {{customer}},\n\na word ahead: invoice {{invoice}} is due on {{due}}, and {{open}} is open. You can pay here: {{my_link}}{{others}}\n\n{{business}}\n{{phone}}\n",
    },
  },
  "last reminder": {
    mail: {
      subject: "Last reminder: invoice {{invoice}}, {{open}}",
      body: "Hello {{customer}},\n\ninvoice {{invoice}} was due on {{due}}, and {{open}} is open in spite of our reminders. Please pay now: {{my_link}}{{others}}\n\nIs something wrong with it, or do you need more time? Call {{phone}}: we find a way. Otherwise we will call you.\n\n{{business}}\n",
    },
    text: "{{business}}: last reminder, invoice {{invoice}}, {{open}} open since {{due}}. Pay or tell us: {{my_link}}",
  },
  "invoice reminder": {
    mail: {
      subject: "Reminder: invoice {{invoice}}, {{open}}",
      body: "Hello {{customer}},\n\ninvoice {{invoice}} was due on {{due}}, and {{open}} is still open. You can pay here: {{my_link}}{{others}}\n\nIf it has crossed with your payment, forget this email.\n\n{{business}}\n{{phone}}\n",
    },
    text: "{{business}}: invoice {{invoice}} was due on {{due}}, {{open}} is open. Pay here: {{my_link}}",
  },
  "deposit lapsed": {
    mail: {
      subject: "Not booked: the deposit did not arrive",
      body: "Hello {{customer}},\n\nthe deposit for {{service}} on {{day}} did not arrive, so the time is free again. Nothing was charged. You are welcome to book again.\n\n{{business}}\n{{phone}}\n",
    },
  },
};

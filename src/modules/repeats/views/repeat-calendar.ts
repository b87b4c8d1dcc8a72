import { Id, input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { calendarOfRepeat } from "../calendar";
import { readRepeat } from "../repeats";

/** A repeat as a calendar file (iCalendar): a rule, what is left out of it, and what was moved. */
export const repeatCalendarView = defineView({
  name: "repeat-calendar",
  access: "customers.see",
  about: { repeatId: "repeat" },
  input: input({ repeatId: Id }),
  read: (context, { repeatId }) => calendarOfRepeat(context, readRepeat(context, repeatId)),
});

import { input, Mail, PersonName, Phone } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

export const Booker = input({
  name: PersonName,
  mail: Mail,
  phone: Phone,
  reminders: Type.Boolean(),
  offers: Type.Optional(Type.Boolean()),
});

import { input, Mail, Name, Phone } from "@/kernel/inputs";
import { Type } from "@sinclair/typebox";

export const Booker = input({
  name: Name,
  mail: Mail,
  phone: Phone,
  reminders: Type.Boolean(),
  offers: Type.Optional(Type.Boolean()),
});

import { Nothing } from "@/schemas/money";
import { defineView } from "../view";
import { readBusinessPart } from "./business";
import { readServices } from "./services";
import { readTeam } from "./team";
import { readZones } from "./zones";

/** The whole set-up, as its forms and its check need it. */
export const setup = defineView({
  name: "setup",
  access: "setup.change",
  input: Nothing,
  read: (context) => ({
    ...readBusinessPart(context),
    ...readServices(context),
    ...readTeam(context),
    ...readZones(context),
  }),
});

export type SetupData = ReturnType<(typeof setup)["read"]>;

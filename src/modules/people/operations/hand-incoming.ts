import { may } from "@/core/people/permissions";
import { Refusal } from "@/core/problems";
import { Id, input, OrNull } from "@/kernel/inputs";
import { defineOperation } from "@/kernel/operation";
import { mustHandle } from "../people";
import { saveSettings } from "@/kernel/settings";

/** Who handles incoming: a person, or whoever may. */
const HandIncoming = input({ personId: OrNull(Id) });

/** Who handles incoming from now on: whoever may say who does what hands it over, or whoever has it. */
export const handIncoming = defineOperation({
  name: "hand-incoming",
  access: "office.see",
  about: { personId: "shared" },
  input: HandIncoming,
  run(context, { personId }) {
    const { business, actor } = context;
    const has = actor.kind === "person" && business.incoming_person_id === actor.id;
    if (!has && !may(actor, "people.change")) throw new Refusal("not-allowed");
    mustHandle(context, personId);
    saveSettings(context, { incoming_person_id: personId });
  },
});

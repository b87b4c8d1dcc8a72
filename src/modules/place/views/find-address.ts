import { Refusal } from "@/core/problems";
import { input } from "@/kernel/inputs";
import { defineView } from "@/kernel/view";
import { Type } from "@sinclair/typebox";
import { locate } from "../addresses";
import { FindAddress } from "../inputs";

const TypeAddress = input({
  line: Type.String({ minLength: 3, maxLength: 120 }),
  postcode: Type.String({ minLength: 2, maxLength: 20 }),
});

export const findAddress = defineView({
  name: "find-address",
  access: "anybody",
  input: FindAddress,
  read: ({ hogar }, { text }) =>
    hogar.gateways.places
      .suggest(text, 8)
      .map(({ id, line, postcode, lng, lat }) => ({ id, line, postcode, lng, lat })),
});

/** An address that the look-up does not know, as somebody typed it; refused where it is not found on the map. */
export const typeAddress = defineView({
  name: "type-address",
  access: "anybody",
  input: TypeAddress,
  read(context, typed) {
    const address = locate(context, typed);
    if (!address)
      throw new Refusal("invalid-input", {
        fields: { "/postcode": `We cannot find this postcode. Check it, or call us on ${context.business.phone}.` },
      });
    const { id, line, postcode, lng, lat } = address;
    return { id, line, postcode, lng, lat };
  },
});

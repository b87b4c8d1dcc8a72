import { Refusal } from "@/core/problems";
import type { Address } from "@/gateways/types";
import type { ViewContext } from "@/kernel/operation";

/** An address that somebody typed in full, since the look-up does not know it. */
export interface TypedAddress {
  line: string;
  postcode: string;
}

/** The id of a typed address: the address itself, so that it can be asked for again like one of the look-up. */
const prefix = "typed.";
const idOf = (typed: TypedAddress): string => prefix + Buffer.from(JSON.stringify(typed)).toString("base64url");

/** An address by its id; refused where there is none. */
export function addressOf(context: ViewContext, id: string): Address {
  const address = knownAddress(context, id);
  if (!address)
    throw new Refusal("invalid-input", {
      fields: { "/addressId": "Choose an address from the list, or type all of it." },
    });
  return address;
}

/** An address of the look-up, or one that was typed and is found on the map; null otherwise. */
export function knownAddress(context: ViewContext, id: string): Address | null {
  if (!id.startsWith(prefix)) return context.hogar.gateways.places.find(id);
  const typed = readTyped(id);
  return typed && locate(context, typed);
}

function readTyped(id: string): TypedAddress | null {
  try {
    const { line, postcode } = JSON.parse(Buffer.from(id.slice(prefix.length), "base64url").toString()) as Record<
      string,
      unknown
    >;
    return typeof line === "string" &&
      typeof postcode === "string" &&
      line.length <= 120 &&
      postcode.length <= 20 &&
      line.trim()
      ? { line, postcode }
      : null;
  } catch {
    return null;
  }
}

/** The address where somebody has been before, to be asked for again: as the look-up knows it, or as it was typed. */
export const addressAt = (context: ViewContext, place: TypedAddress): Address | null =>
  context.hogar.gateways.places
    .suggest(place.line, 8)
    .find((found) => found.line === place.line && found.postcode === place.postcode) ?? locate(context, place);

/** Where a typed address lies, as exactly as the look-up can say; null where it cannot. */
export function locate({ hogar }: ViewContext, { line, postcode }: TypedAddress): Address | null {
  const typed = { line: line.trim().replace(/\s+/g, " "), postcode: postcode.trim().toUpperCase() };
  const near = hogar.gateways.places.locate(typed);
  return near && { id: idOf(typed), ...typed, lng: near.lng, lat: near.lat, ...(near.town && { town: near.town }) };
}

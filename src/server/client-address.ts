import ipaddr from "ipaddr.js";

/** The header in which the server says where a request came from; whatever came in under this name is overwritten. */
export const addressHeader = "x-hogar-address";

/**
 * The address a request is counted by. `socket` is who is connected to us, `forwarded` what proxies wrote down, of whom the
 * last `trusted` are ours: each of them appended whom it saw. IPv6 is told apart by its /64, which is one household.
 */
export function clientAddress(socket: string | undefined, forwarded: string | undefined, trusted: number): string {
  const seen = [...(forwarded ?? "").split(",").map((part) => part.trim()), socket ?? ""].filter(Boolean);
  return household(seen[Math.max(0, seen.length - 1 - trusted)] ?? "");
}

function household(address: string): string {
  if (!ipaddr.isValid(address)) return "unknown";
  const parsed = ipaddr.process(address);
  if (parsed.kind() === "ipv4" || parsed.range() === "loopback") return parsed.toString();
  const network = ipaddr.IPv6.networkAddressFromCIDR(`${parsed.toString()}/64`);
  return `${network.toString()}/64`;
}

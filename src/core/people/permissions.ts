/** Who may do what. Roles are bundles of permissions; operations and views ask for one permission each. */
export type Role = "owner" | "dispatcher" | "bookkeeper" | "technician";

export type Permission =
  | "office.see"
  | "setup.change"
  | "people.change"
  | "board.change"
  | "customers.see"
  | "money.see"
  | "money.change"
  | "field.work";

export const roles: Record<Role, { name: string; permissions: readonly Permission[] }> = {
  owner: { name: "Owner", permissions: ["office.see", "setup.change", "people.change", "board.change", "customers.see", "money.see", "money.change", "field.work"] },
  dispatcher: { name: "Dispatcher", permissions: ["office.see", "board.change", "customers.see", "field.work"] },
  bookkeeper: { name: "Bookkeeper", permissions: ["office.see", "customers.see", "money.see", "money.change"] },
  technician: { name: "Technician", permissions: ["field.work"] },
};

/** Who acts: a signed-in person, a customer with a private link, somebody at the front door, or the application itself. */
export type Actor =
  | { kind: "person"; id: number; name: string; role: Role; technicianId: number | null }
  | { kind: "link"; linkId: number; jobId: number; customerId: number }
  | { kind: "visitor" }
  | { kind: "system"; name: string };

/** What an operation or a view asks of its actor. */
export type Access = Permission | "anybody" | "link" | "system";

export function may(actor: Actor, access: Access): boolean {
  if (access === "anybody" || actor.kind === "system") return true;
  if (access === "system") return false;
  if (access === "link") return actor.kind === "link";
  return actor.kind === "person" && roles[actor.role].permissions.includes(access);
}

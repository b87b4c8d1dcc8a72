/** Who may do what. Roles are bundles of permissions; operations and views ask for one permission each. */
export type Role = "owner" | "dispatcher" | "bookkeeper" | "technician";

export type Permission =
  | "office.see"
  | "setup.change"
  | "people.change"
  | "board.change"
  /** All visits and customers; without it only those of one's own day as a technician. */
  | "visits.all"
  | "customers.see"
  | "customers.change"
  /** Phone numbers and emails of customers; without it their names and places only. */
  | "contacts.see"
  /** Notes for inside only. */
  | "notes.see"
  | "money.see"
  | "money.change"
  /** To say up to when nothing is posted any more. */
  | "books.close"
  /** Who did what, and the log of the lock. */
  | "audit.see"
  | "field.work";

export const roles: Record<Role, { name: string; permissions: readonly Permission[] }> = {
  owner: {
    name: "Owner",
    permissions: [
      "office.see",
      "setup.change",
      "people.change",
      "board.change",
      "visits.all",
      "customers.see",
      "customers.change",
      "contacts.see",
      "notes.see",
      "money.see",
      "money.change",
      "books.close",
      "audit.see",
      "field.work",
    ],
  },
  dispatcher: {
    name: "Dispatcher",
    permissions: [
      "office.see",
      "board.change",
      "visits.all",
      "customers.see",
      "customers.change",
      "contacts.see",
      "notes.see",
      "field.work",
    ],
  },
  bookkeeper: {
    name: "Bookkeeper",
    permissions: [
      "office.see",
      "visits.all",
      "customers.see",
      "customers.change",
      "contacts.see",
      "notes.see",
      "money.see",
      "money.change",
      "books.close",
    ],
  },
  technician: { name: "Technician", permissions: ["field.work"] },
};

/** What each permission lets somebody do, in the words of set-up. */
export const permissionWords: Record<Permission, string> = {
  "office.see": "See the office",
  "setup.change": "Change the set-up",
  "people.change": "Say who signs in and may do what",
  "board.change": "Book, move and cancel visits",
  "visits.all": "See everybody’s visits, not only their own",
  "customers.see": "See customers",
  "customers.change": "Make, change and import customers",
  "contacts.see": "See how customers are reached",
  "notes.see": "Read notes for inside only",
  "money.see": "See invoices and payments",
  "money.change": "Record payments",
  "books.close": "Close the books up to a day",
  "audit.see": "See who did what",
  "field.work": "Work through a day in the field",
};
export const allPermissions = Object.keys(permissionWords) as Permission[];

/** What a person may do: what the role allows, with what is given beside it and without what is taken away. */
export const permissionsOf = (
  role: Role,
  given: readonly Permission[] = [],
  taken: readonly Permission[] = [],
): Permission[] =>
  allPermissions.filter((p) => !taken.includes(p) && (given.includes(p) || roles[role].permissions.includes(p)));

/** A person as an actor. */
export const personActor = ({
  given = [],
  taken = [],
  mustEnrol = false,
  ...person
}: {
  id: number;
  name: string;
  role: Role;
  technicianId: number | null;
  given?: readonly Permission[];
  taken?: readonly Permission[];
  mustEnrol?: boolean;
  session?: string;
}): Extract<Actor, { kind: "person" }> => ({
  kind: "person",
  ...person,
  mustEnrol,
  permissions: mustEnrol ? [] : permissionsOf(person.role, given, taken),
});

/** The technician whose visits are all that somebody sees; null where everybody's are. Somebody limited to own visits who is no technician sees none (0). */
export const seesOnly = (actor: Actor): number | null =>
  actor.kind !== "person" || may(actor, "visits.all") ? null : (actor.technicianId ?? 0);

/** Who acts: a signed-in person, a customer with a private link, somebody at the front door, or the application itself. */
export type Actor =
  | {
      kind: "person";
      id: number;
      name: string;
      role: Role;
      technicianId: number | null;
      permissions: readonly Permission[];
      /** The role asks for a second factor that this person has not set up: until then nothing else can be done. */
      mustEnrol: boolean;
      /** Which of this person's sessions it is, as it is named to them. */
      session?: string;
    }
  | { kind: "link"; linkId: number; jobId: number; customerId: number }
  | { kind: "visitor" }
  | { kind: "system"; name: string };

/**
 * What an operation or a view asks of its actor. A permission “of all” takes somebody who has it and is not limited to visits
 * of their own: for what shows or changes everybody's work, or what is nobody's own yet, such as what came in. `person` is
 * whoever is signed in, for what is theirs.
 */
export type Access = Permission | `${Permission} of all` | "person" | "anybody" | "link" | "system";

export function may(actor: Actor, access: Access): boolean {
  if (access === "anybody" || actor.kind === "system") return true;
  if (access === "system") return false;
  if (access === "link" || access === "person") return actor.kind === access;
  return actor.kind === "person" && permit(actor.permissions, access);
}

/** Whether somebody with these permissions may what takes one of them, or one “of all”. */
export function permit(permissions: readonly Permission[], access: Permission | `${Permission} of all`): boolean {
  const [, permission, all] = /^(\S+)( of all)?$/.exec(access) as unknown as [string, Permission, string?];
  return permissions.includes(permission) && (all === undefined || permissions.includes("visits.all"));
}

/** Of these permissions, those that somebody cannot give since they do not have them. The application itself gives all. */
export const beyond = (actor: Actor, permissions: readonly Permission[]): Permission[] =>
  actor.kind === "system" ? [] : permissions.filter((p) => !may(actor, p));

import type Database from "better-sqlite3";

/**
 * Every change says who, when, what before and after. Temporary triggers on each table write the
 * old and the new row of every change under the audit entry of the operation that runs. A change
 * outside an operation has no entry and is refused: the door is the only way in.
 */
export interface AuditScope {
  /** Runs `change` under an audit entry of its own. Must be called inside a transaction. */
  under<T>(entry: { at: number; actor: string; operation: string }, change: () => T): T;
}

/** Machinery that is not about the business: leases, sessions, the audit itself. */
const notAudited = new Set([
  "outbox",
  "sessions",
  "plan_changes",
  "failed_work",
  "import_rows",
  "import_keys",
  "worker_marks",
  "reminded",
  "told_days",
  "reminder_looks",
  "security_events",
  "tries",
  "lanes",
  "ledger_chain",
  "audit",
  "audit_changes",
]);
/** Columns that the audit does not repeat: secrets, where somebody came from, what the card service calls a card or a charge, and what is too large. */
export const notRepeated: ReadonlySet<string> = new Set([
  "fingerprint",
  "gateway_reference",
  "step_address",
  "password_hash",
  "hold_key",
  "nonce",
  "bytes",
  "keep_token",
  "code_hash",
  "totp_sealed",
  "recovery_hashes",
  "from_address",
  "from_browser",
]);

export function installAudit(db: Database.Database): AuditScope {
  let current: number | null = null;
  let changed = false;
  db.function("current_audit", { deterministic: false }, () => {
    if (current === null) throw new Error("A change to the data outside an operation");
    changed = true;
    return current;
  });
  const tables = db
    .prepare<[], { name: string }>(
      "SELECT name FROM pragma_table_list WHERE schema = 'main' AND type = 'table' AND name NOT LIKE 'sqlite_%'",
    )
    .all();
  for (const { name } of tables) if (!notAudited.has(name)) db.exec(triggersOf(db, name));

  const enter = db.prepare<[number, string, string]>("INSERT INTO audit (at, actor, operation) VALUES (?, ?, ?)");
  const leave = db.prepare<[number]>("DELETE FROM audit WHERE id = ?");
  return {
    under(entry, change) {
      const outer = { current, changed };
      current = Number(enter.run(entry.at, entry.actor, entry.operation).lastInsertRowid);
      changed = false;
      try {
        const result = change();
        // The worker looks every second; what changed nothing leaves nothing.
        if (!changed) leave.run(current);
        return result;
      } finally {
        ({ current, changed } = outer);
      }
    },
  };
}

function triggersOf(db: Database.Database, table: string): string {
  const columns = db
    .prepare<[], { name: string; pk: number }>(`SELECT name, pk FROM pragma_table_info('${table}')`)
    .all();
  const row = (side: "OLD" | "NEW") =>
    `json_object(${columns
      .filter((c) => !notRepeated.has(c.name) && !(table === "cards" && c.name === "reference"))
      .map((c) => `'${c.name}', ${side}."${c.name}"`)
      .join(", ")})`;
  const key = (side: "OLD" | "NEW") =>
    columns
      .filter((c) => c.pk > 0)
      .map((c) => `${side}."${c.name}"`)
      .join(" || ' ' || ");
  const trigger = (event: "INSERT" | "UPDATE" | "DELETE", side: "OLD" | "NEW", before: string, after: string) => `
    CREATE TEMP TRIGGER audit_${table}_${event} AFTER ${event} ON main."${table}" BEGIN
      INSERT INTO audit_changes (audit_id, entity, row_key, before, after)
      VALUES (current_audit(), '${table}', ${key(side)}, ${before}, ${after});
    END;`;
  return (
    trigger("INSERT", "NEW", "NULL", row("NEW")) +
    trigger("UPDATE", "NEW", row("OLD"), row("NEW")) +
    trigger("DELETE", "OLD", row("OLD"), "NULL")
  );
}

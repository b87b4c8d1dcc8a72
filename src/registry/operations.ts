import type { Operation } from "@/kernel/operation";
import type { Static } from "@sinclair/typebox";
import { ownOperations } from "./modules";
import { promisingOperations } from "./promising";

/** The operations that can be asked for from outside, by name: those of set-up say which promises they touch. */
export const operations = { ...ownOperations, ...promisingOperations };

type Operations = typeof operations;
export type OperationName = keyof Operations;
export type OperationInput<N extends OperationName> = Static<Operations[N]["input"]>;
export type OperationOutput<N extends OperationName> = ReturnType<Operations[N]["run"]>;

/** An operation by its name as it came in, or null. */
export const operationNamed = (name: string): Operation | null =>
  Object.hasOwn(operations, name) ? (operations[name as OperationName] as unknown as Operation) : null;

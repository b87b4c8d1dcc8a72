export type { OperationName } from "@/operations";
export type { ViewName } from "@/views";

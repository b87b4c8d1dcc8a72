import { takeNotice } from "@/server/message-notices";

/** What the service for calls says of ours, and what has come in: signed by it. */
export const POST = (request: Request): Promise<Response> => takeNotice(request, "voice");

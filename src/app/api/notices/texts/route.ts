import { takeNotice } from "@/server/message-notices";

/** What the service for texts says of ours, and what has come in: signed by it. */
export const POST = (request: Request): Promise<Response> => takeNotice(request, "text");

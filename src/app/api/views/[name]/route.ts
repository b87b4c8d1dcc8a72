import { askedOf } from "@/server/body";
import { answerView } from "@/server/direct";
import { asResponse } from "@/server/guard";

/** Where the application is served otherwise than by `hogar serve`, which answers these before Next. */
export const POST = async (request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> =>
  asResponse(await answerView((await params).name, askedOf(request)));

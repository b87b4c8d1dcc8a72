import { refused } from "@/kernel/operation";
import { answer, jsonOf } from "@/server/guard";
import { standins } from "@/server/demo";

/** The card stand-in's own door: a card number in, a token out. The application never sees the number. */
export async function POST(request: Request): Promise<Response> {
  const { cards } = standins();
  try {
    const { number } = (await jsonOf(request)) as { number?: unknown };
    const token = typeof number === "string" ? cards.tokenFor(number) : null;
    return Response.json(token ? { token } : { problem: "This is not one of the test cards." }, {
      status: token ? 200 : 422,
    });
  } catch (error) {
    return answer(refused(error));
  }
}

import { perform, refused } from "@/kernel/operation";
import { receiveText } from "@/registry/routes";
import { answer, jsonOf } from "@/server/guard";
import { standins } from "@/server/demo";
import { getHogar } from "@/server/hogar";

/** The plain phone answers. */
export async function POST(request: Request): Promise<Response> {
  const { text } = standins();
  try {
    const hogar = getHogar();
    const input = (await jsonOf(request)) as { sender: string; body: string };
    const result = perform(hogar, receiveText, input, { kind: "system", name: "text gateway" });
    if (result.ok) text.answer(input.sender, input.body, Date.now());
    return answer(result);
  } catch (error) {
    return answer(refused(error));
  }
}

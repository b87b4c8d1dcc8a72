import { answer, jsonOf } from "@/app/server/guard";
import { getHogar } from "@/app/server/hogar";
import { perform, refused } from "@/operations/door";
import { receiveText } from "@/operations/receive-text";

/** The plain phone answers. */
export async function POST(request: Request): Promise<Response> {
  try {
    const hogar = getHogar();
    const input = (await jsonOf(request)) as { sender: string; body: string };
    const result = perform(hogar, receiveText, input, { kind: "system", name: "text gateway" });
    if (result.ok) hogar.standins.text.answer(input.sender, input.body, Date.now());
    return answer(result);
  } catch (error) {
    return answer(refused(error));
  }
}

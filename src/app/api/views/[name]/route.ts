import { Refusal } from "@/core/problems";
import { refused } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { viewNamed } from "@/registry/views";
import { guarded } from "@/server/guarded";
import { getHogar } from "@/server/hogar";

/** Every question from a page: a view by name. Asked with POST, so that nothing personal stands in an address. */
export async function POST(request: Request, { params }: { params: Promise<{ name: string }> }): Promise<Response> {
  const view = viewNamed((await params).name);
  return guarded(request, (actor, input) =>
    view ? look(getHogar(), view, input, actor) : refused(new Refusal("not-found")),
  );
}

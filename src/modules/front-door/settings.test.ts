import { perform } from "@/kernel/operation";
import { look } from "@/kernel/view";
import { saveFrontDoor } from "@/modules/front-door/operations/save-front-door";
import { setup } from "@/modules/setup/views/setup";
import { office, one, smallWorld } from "@demo/small-world";

type World = ReturnType<typeof smallWorld>;

describe("the front door's settings", () => {
  const save = (world: World, more: object) => {
    const view = look(world.hogar, setup, {}, office);
    return perform(world.hogar, saveFrontDoor, { ...(view.ok ? view.value.frontDoor : {}), ...more }, office);
  };
  it("refuse colours that cannot be read, addresses that run something, and fields with effects", () => {
    const world = smallWorld();
    expect(save(world, { accent: "#eeeeaa" })).toMatchObject({
      problem: { fields: { "/accent": expect.stringContaining("contrast") } },
    });
    expect(save(world, { ground: "#222222" })).toMatchObject({
      problem: { fields: { "/ground": expect.stringContaining("lighter") } },
    });
    for (const doneAddress of ["javascript:alert(1)", "data:text/html,x", "//evil", "ftp://a.example"])
      expect(save(world, { doneAddress })).toMatchObject({
        problem: { fields: { "/doneAddress": "Write an address such as https://marrowick.example." } },
      });
    expect(
      save(world, { fields: [{ id: "a", words: "How many?", required: false, kind: "count", min: 1, max: 3 }] }),
    ).toMatchObject({ problem: { fields: { "/fields/0": expect.any(String) } } });
    expect(save(world, { accent: "#7a1f3d", ground: "#fffdf5", sites: ["https://marrowick.example/contact"] }).ok).toBe(
      true,
    );
    expect(one(world.hogar, "SELECT accent, sites FROM front_door")).toEqual({
      accent: "#7a1f3d",
      sites: '["https://marrowick.example"]',
    });
  });

  it("ask their fields of everybody, and keep the answers with the job", () => {
    const world = smallWorld();
    expect(
      save(world, {
        fields: [
          { id: "agree", words: "I have read the house rules", required: true, kind: "tick" },
          { id: "parking", words: "Where can we park?", required: false, kind: "text", most: 100 },
        ],
      }).ok,
    ).toBe(true);
    expect(world.book()).toMatchObject({ problem: { fields: { "/fields/agree": "Please answer this." } } });
    expect(world.book({ more: { fields: { agree: false } } })).toMatchObject({
      problem: { fields: { "/fields/agree": "Please tick this." } },
    });
    const { jobId } = world.booked({ more: { fields: { agree: true, parking: "In the yard" } } });
    expect(
      JSON.parse(one<{ fields: string }>(world.hogar, "SELECT fields FROM jobs WHERE id = ?", jobId).fields),
    ).toMatchObject([{ words: "yes" }, { question: "Where can we park?", words: "In the yard" }]);
  });
});

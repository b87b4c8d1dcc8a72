import { renewLink } from "@/modules/booking/operations/renew-link";
import { myVisit } from "@/modules/my-visit/views/my-visit";
import { drainOutbox } from "@/worker/outbox";
import { office, one, smallWorld } from "@demo/small-world";
import { actorOfLink } from "./links";
import { mustPerform } from "./operation";
import { look } from "./view";

describe("a customer's link", () => {
  it("opens its own job only", () => {
    const world = smallWorld();
    const [first, second] = [world.booked(), world.booked({ name: "Anton Lund" })];
    const seen = look(world.hogar, myVisit, {}, actorOfLink(world.hogar, first.link)!);
    expect(seen.ok && seen.value.job.customer).toBe("Mira Okonjo");
    expect(second.link).not.toBe(first.link);
  });

  it("cannot be guessed or changed, and ends when it is renewed", () => {
    const world = smallWorld();
    const { link, jobId } = world.booked();
    const [id, seal] = link.split(".");
    for (const wrong of [
      `${id}.`,
      `${Number(id) + 1}.${seal}`,
      `${id}.${seal!.slice(0, -1)}x`,
      `${link}.x`,
      "",
      "1",
      "../1",
    ])
      expect(actorOfLink(world.hogar, wrong)).toBeNull();
    mustPerform(world.hogar, renewLink, { jobId }, office);
    expect(actorOfLink(world.hogar, link)).toBeNull();
  });

  it("stands nowhere in the database", async () => {
    const world = smallWorld();
    const { link } = world.booked();
    await drainOutbox(world.hogar);
    expect(
      one(
        world.hogar,
        "SELECT (SELECT count(*) FROM messages WHERE body LIKE ?) + (SELECT count(*) FROM audit_changes WHERE after LIKE ?) AS n",
        `%${link}%`,
        `%${link}%`,
      ),
    ).toEqual({ n: 0 });
    const { mail } = world.hogar.standins!;
    expect(
      mail
        .read(mail.files()[0]!.name)!
        .toString("utf8")
        .replace(/=\r?\n/g, ""),
    ).toContain(link);
  });
});

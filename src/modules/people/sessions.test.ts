import { mustPerform, perform } from "@/kernel/operation";
import { endSessions } from "@/modules/people/operations/end-sessions";
import { savePerson } from "@/modules/people/operations/save-person";
import { actorOfSession, signIn, signOut } from "@/modules/people/sessions";
import { office, smallWorld } from "@demo/small-world";

describe("signing in", () => {
  it("needs the right password, and ends when the owner ends it", async () => {
    const { hogar } = smallWorld();
    expect(await signIn(hogar, { mail: "odile@marrowick.example", password: "wrong" })).toMatchObject({
      problem: { code: "wrong-password" },
    });
    expect(await signIn(hogar, { mail: "nobody@example.com", password: "open the door" })).toMatchObject({
      problem: { code: "wrong-password" },
    });
    const [first, second] = [
      await signIn(hogar, { mail: "ODILE@marrowick.example", password: "open the door" }),
      await signIn(hogar, { mail: "odile@marrowick.example", password: "open the door" }),
    ];
    if (!first.ok || !second.ok) throw new Error("could not sign in");
    expect(actorOfSession(hogar, first.value.sessionId)).toMatchObject({ name: "Odile Brandt", role: "owner" });
    signOut(hogar, first.value.sessionId);
    expect(actorOfSession(hogar, first.value.sessionId)).toBeNull();
    mustPerform(hogar, endSessions, { personId: 1 }, office);
    expect(actorOfSession(hogar, second.value.sessionId)).toBeNull();
  });

  it("leaves the business an owner", () => {
    const { hogar } = smallWorld();
    expect(
      perform(
        hogar,
        savePerson,
        {
          id: 1,
          name: "Odile Brandt",
          mail: "odile@marrowick.example",
          role: "dispatcher",
          technicianId: null,
          active: true,
        },
        office,
      ),
    ).toMatchObject({ problem: { code: "last-owner" } });
  });
});

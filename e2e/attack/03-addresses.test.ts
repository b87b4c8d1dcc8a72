import { post } from "../support/http";
import { underAttack } from "./attacker";

/** 3: who writes another address into every request is counted as who they are. */
const app = underAttack({ env: { HOGAR_FRONT_DOOR_PER_MINUTE: "20" } });

it("made-up addresses get around no limit", async () => {
  const answers = [];
  for (let n = 0; n < 25; n++)
    answers.push(
      await post(
        `${app.url}/api/views/find-address`,
        { text: "alder" },
        { "x-forwarded-for": `203.0.113.${n}`, "x-hogar-address": `203.0.113.${n}`, "x-real-ip": `203.0.113.${n}` },
      ),
    );
  expect(answers.filter((a) => a.status === 429).length).toBeGreaterThan(0);
  expect(answers.filter((a) => a.ok).length).toBeLessThanOrEqual(20);
});

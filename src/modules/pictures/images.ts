import { type Access, type Actor, may } from "@/core/people/permissions";
import { Refusal, type Result } from "@/core/problems";
import { cleanImageOutside } from "@/gateways/image-process";
import { type CleanImage, ImageProblem } from "@/gateways/images";
import { TooManyWait } from "@/gateways/outside-process";
import type { Hogar } from "@/kernel/hogar";
import { input, OneOf } from "@/kernel/inputs";
import { defineOperation, type Origin, ownOrigin, perform, refused } from "@/kernel/operation";
import { insertRow } from "@/store/insert";
import { Type } from "@sinclair/typebox";
import { nanoid } from "nanoid";

/** What a picture is for: how large it is kept, in pixels of its longer side, and who may send it. */
const purposes = {
  mark: { size: 600, access: "setup.change" },
  technician: { size: 480, access: "setup.change" },
  service: { size: 1000, access: "setup.change" },
  door: { size: 1600, access: "setup.change" },
  answer: { size: 1600, access: "anybody" },
} as const satisfies Record<string, { size: number; access: Access }>;
export type ImagePurpose = keyof typeof purposes;
export const isPurpose = (name: string | null): name is ImagePurpose => name !== null && Object.hasOwn(purposes, name);

/** Kept by the application itself when it has been looked at: not among what can be asked for. */
const keep = defineOperation({
  name: "keep-image",
  access: "anybody",
  input: input({
    purpose: OneOf(Object.keys(purposes) as ImagePurpose[]),
    mime: OneOf(["image/png", "image/jpeg"]),
    width: Type.Integer(),
    height: Type.Integer(),
    base64: Type.String(),
  }),
  run({ sql, now, origin, actor }, { purpose, mime, width, height, base64 }) {
    const token = nanoid();
    insertRow(sql, "images", {
      token,
      purpose,
      mime,
      width,
      height,
      bytes: Buffer.from(base64, "base64"),
      made_at: now,
      from_address: origin.address,
      used: actor.kind === "person" ? 1 : 0,
    });
    return { token, width, height };
  },
});

/** Bytes of pictures that visitors have sent and nobody has sent off with anything: from one address, and in all. */
const mostUnused = { here: 40_000_000, all: 1_000_000_000 };

function mustHaveRoom({ store }: Hogar, actor: Actor, { address }: Origin): void {
  if (actor.kind === "person") return;
  const { here, all } = store
    .sql<{ here: number; all: number }>(
      `SELECT coalesce(sum(iif(from_address = @address, length(bytes), 0)), 0) AS here,
          coalesce(sum(length(bytes)), 0) AS "all"
        FROM images WHERE used = 0`,
    )
    .get({ address })!;
  if (here > mostUnused.here || all > mostUnused.all) throw new Refusal("too-many-pictures");
}

/** Takes a picture as it was sent: looked at by its content, made smaller, stripped of everything but itself. */
export async function takeImage(
  hogar: Hogar,
  actor: Actor,
  purpose: ImagePurpose,
  sent: Buffer,
  origin: Origin = ownOrigin,
): Promise<Result<{ token: string; width: number; height: number }>> {
  if (!may(actor, purposes[purpose].access))
    return refused(new Refusal(actor.kind === "visitor" ? "not-signed-in" : "not-allowed"));
  let clean: CleanImage;
  try {
    mustHaveRoom(hogar, actor, origin);
    clean = await cleanImageOutside(sent, purposes[purpose].size, origin.address);
  } catch (error) {
    if (error instanceof TooManyWait)
      return refused(
        new Refusal("too-many-tries", { sentence: "Many pictures are being looked at. Try again in a moment." }),
      );
    return refused(error instanceof ImageProblem ? new Refusal("not-a-picture") : error);
  }
  return perform(
    hogar,
    keep,
    { purpose, mime: clean.mime, width: clean.width, height: clean.height, base64: clean.bytes.toString("base64") },
    actor,
    origin,
  );
}

/** A kept picture, by its token. */
export const readImage = ({ store }: Hogar, token: string): { mime: string; bytes: Buffer } | undefined =>
  store.sql<{ mime: string; bytes: Buffer }>("SELECT mime, bytes FROM images WHERE token = ?").get(token);

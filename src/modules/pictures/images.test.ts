import { mustPerform } from "@/kernel/operation";
import { saveBusiness } from "@/modules/business/operations/save-business";
import { saveService } from "@/modules/catalogue/operations/save-service";
import { makeRequest } from "@/modules/requests/operations/requests";
import { businessInput, office, one, saidOf, serviceInput, smallWorld, system, visitor } from "@demo/small-world";
import { keepDocument } from "@/modules/messages/files";
import { forgetFiles } from "@/modules/messages/operations/forget-files";
import { receiveText } from "@/modules/messages/operations/receive";
import sharp from "sharp";
import { readImage, takeImage } from "./images";
import { forgetPictures } from "./operations/forget-pictures";

describe("pictures", () => {
  const picture = (format: "png" | "jpeg", width = 1200, height = 900) => {
    const made = sharp({ create: { width, height, channels: 3, background: "#8A5A2B" } }).withExif({
      IFD0: { Copyright: "somebody" },
      IFD3: { GPSLatitude: "41/1 12/1 0/1" },
    });
    return (format === "png" ? made.png() : made.jpeg()).toBuffer();
  };

  it("are made smaller and lose everything they carried along", async () => {
    const { hogar } = smallWorld();
    const kept = await takeImage(hogar, office, "mark", await picture("jpeg"));
    const image = readImage(hogar, kept.ok ? kept.value.token : "")!;
    const read = await sharp(image.bytes).metadata();
    expect([image.mime, read.width, read.height, read.exif, read.format]).toEqual([
      "image/jpeg",
      600,
      450,
      undefined,
      "jpeg",
    ]);
  });

  it("are told by their content, and sent by those who may", async () => {
    const { hogar } = smallWorld();
    expect(
      await takeImage(hogar, office, "service", Buffer.from("<svg xmlns='http://www.w3.org/2000/svg'/>")),
    ).toMatchObject({ problem: { code: "not-a-picture" } });
    expect(await takeImage(hogar, visitor, "mark", await picture("png", 10, 10))).toMatchObject({
      problem: { code: "not-signed-in" },
    });
    expect(await takeImage(hogar, visitor, "answer", await picture("png", 10, 10))).toMatchObject({ ok: true });
  });

  it("are forgotten after two days where nothing needs them", async () => {
    const world = smallWorld();
    const tokens = await Promise.all(
      (["mark", "answer"] as const).map(async (purpose) => {
        const kept = await takeImage(world.hogar, office, purpose, await picture("png", 10, 10));
        return kept.ok ? kept.value.token : "";
      }),
    );
    mustPerform(world.hogar, saveBusiness, { ...businessInput, mark: tokens[0]! }, office);
    const left = () => tokens.map((token) => readImage(world.hogar, token) !== undefined);
    mustPerform(world.hogar, forgetPictures, {}, system);
    expect(left()).toEqual([true, true]);
    // What somebody sent along with a request waits as long as the request does.
    const asked = await takeImage(world.hogar, visitor, "answer", await picture("jpeg", 10, 10));
    const photo = asked.ok ? asked.value.token : "";
    mustPerform(
      world.hogar,
      makeRequest,
      {
        addressId: world.addresses[10]!.id,
        items: [{ serviceId: world.services.sweep }],
        address: "",
        name: "Selma Vance",
        mail: "selma@example.com",
        phone: "+1 555 0178",
        wishes: "Soon",
        photos: [photo],
      },
      visitor,
    );
    world.later(3 * 1440);
    mustPerform(world.hogar, forgetPictures, {}, system);
    expect([...left(), readImage(world.hogar, photo) !== undefined]).toEqual([true, false, true]);
  });

  it("that came with a message stay with it", async () => {
    const { hogar, later } = smallWorld();
    const kept = await takeImage(hogar, system, "answer", await picture("png", 10, 10));
    const token = kept.ok ? kept.value.token : "";
    mustPerform(hogar, receiveText, { key: "a", sender: "+1 555 0177", body: "This one", photos: [token] }, system);
    const letter = keepDocument(hogar, "letter.pdf", Buffer.from("%PDF-1.7 nothing"), office);
    later(3 * 1440);
    mustPerform(hogar, forgetPictures, {}, system);
    mustPerform(hogar, forgetFiles, {}, system);
    expect(readImage(hogar, token)).toBeDefined();
    // A document that was never sent goes.
    expect(one(hogar, "SELECT 1 FROM documents WHERE token = ?", letter.ok && letter.value.token)).toBeUndefined();
  });

  it("answer a question only where they were kept", async () => {
    const world = smallWorld();
    mustPerform(
      world.hogar,
      saveService,
      {
        ...serviceInput,
        id: world.services.sweep,
        code: "SW",
        name: "Chimney sweep",
        priceMinor: 7900,
        minutes: 60,
        questions: [{ id: "pot", words: "A photo of the pot", required: true, kind: "photo", most: 2 }],
      },
      office,
    );
    const kept = await takeImage(world.hogar, visitor, "answer", await picture("png", 10, 10));
    const token = kept.ok ? kept.value.token : "";
    const window = world.offers(world.services.sweep, 10, { pot: [token] })[0]!;
    expect(saidOf(world.book({ window, answers: { pot: ["not-a-picture-of-ours"] } }))).toBe(
      "A photo did not arrive. Remove it and add it again.",
    );
    const { jobId } = world.booked({ window, answers: { pot: [token] } });
    expect(
      JSON.parse(
        one<{ answers: string }>(world.hogar, "SELECT answers FROM job_items WHERE job_id = ?", jobId).answers,
      ),
    ).toEqual([{ id: "pot", question: "A photo of the pot", words: "1 photo", value: [token], photos: [token] }]);
  });
});

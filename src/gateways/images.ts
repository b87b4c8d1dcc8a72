import sharp from "sharp";

/** What was sent is no picture that can be read. */
export class ImageProblem extends Error {}

export interface CleanImage {
  mime: "image/png" | "image/jpeg";
  width: number;
  height: number;
  bytes: Buffer;
}

/** More pixels than any camera of a phone that people send from needs; what is larger is not decoded at all. */
const mostPixels = 25_000_000;

/**
 * A PNG or JPEG, told by its content and not by its name, turned upright, at most `size` pixels on its
 * longer side, and without anything it carried along: place, camera, comments, colour profiles.
 * Throws ImageProblem for anything else.
 */
export async function cleanImage(sent: Buffer, size: number): Promise<CleanImage> {
  try {
    const picture = sharp(sent, { limitInputPixels: mostPixels, failOn: "error", sequentialRead: true });
    const { format, width, height } = await picture.metadata();
    if ((width ?? 0) * (height ?? 0) > mostPixels) throw new ImageProblem("too many pixels");
    if (format !== "png" && format !== "jpeg") throw new ImageProblem("neither PNG nor JPEG");
    const upright = picture.rotate().resize({ width: size, height: size, fit: "inside", withoutEnlargement: true });
    const { data, info } = await (
      format === "png" ? upright.png({ compressionLevel: 9 }) : upright.jpeg({ quality: 82, mozjpeg: true })
    ).toBuffer({ resolveWithObject: true });
    return { mime: `image/${format}`, width: info.width, height: info.height, bytes: data };
  } catch (error) {
    throw error instanceof ImageProblem ? error : new ImageProblem(String(error));
  }
}

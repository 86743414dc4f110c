import sharp from 'sharp';

/** A picture in a text has no more pixels than these each way, and no more than so many are unpacked of it. */
const WIDEST = 1_600;
const MOST_PIXELS = 40_000_000;

/** A picture that stands in a text, as PNG or JPEG; `null` where it is of no kind that can be shown. */
export async function smallPicture(
  bytes: Uint8Array,
): Promise<{ readonly bytes: Uint8Array; readonly width: number; readonly height: number } | null> {
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS }).rotate();
    const { format } = await picture.metadata();
    const fitted = picture.resize({
      width: WIDEST,
      height: WIDEST,
      fit: 'inside',
      withoutEnlargement: true,
    });
    const encoded = format === 'jpeg' ? fitted.jpeg({ quality: 88 }) : fitted.png();
    const { data, info } = await encoded.toBuffer({ resolveWithObject: true });
    return { bytes: data, width: info.width, height: info.height };
  } catch {
    return null;
  }
}

const longest = 1600;

/** What the QR code in a picture says; null where none is found. Throws where the browser can't open the picture. */
export async function codeIn(picture: Blob): Promise<string | null> {
  const [{ default: jsQR }, bitmap] = await Promise.all([import("jsqr"), createImageBitmap(picture)]);
  // A photograph is far larger than its code needs; a code far off needs all of it.
  for (const most of [longest / 2, longest, longest * 2]) {
    const scale = Math.min(1, most / Math.max(bitmap.width, bitmap.height));
    const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
    const canvas = document.createElement("canvas");
    [canvas.width, canvas.height] = [width, height];
    const pen = canvas.getContext("2d", { willReadFrequently: true });
    if (!pen) return null;
    pen.drawImage(bitmap, 0, 0, width, height);
    const found = jsQR(pen.getImageData(0, 0, width, height).data, width, height);
    if (found) return found.data;
    if (scale === 1) break;
  }
  return null;
}

/** A picture made small before it waits in the outbox or goes over the air; drawn anew, nothing else in the file comes along. */
const longestSide = 2000;

/** The same file where this browser cannot read it: the server decides then, and says why. */
export async function shrinkPicture(file: Blob): Promise<Blob> {
  try {
    const bitmap = await createImageBitmap(file, { imageOrientation: 'from-image' });
    const scale = Math.min(1, longestSide / Math.max(bitmap.width, bitmap.height));
    const canvas = document.createElement('canvas');
    canvas.width = Math.max(1, Math.round(bitmap.width * scale));
    canvas.height = Math.max(1, Math.round(bitmap.height * scale));
    const pen = canvas.getContext('2d');
    if (!pen) return file;
    pen.fillStyle = '#ffffff';
    pen.fillRect(0, 0, canvas.width, canvas.height);
    pen.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
    bitmap.close();
    const drawn = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', 0.85));
    return drawn ?? file;
  } catch {
    return file;
  }
}

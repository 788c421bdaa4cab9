import { PHOTO_MAX_BYTES, PHOTO_TYPES } from '@steady-gleam/contracts';

/** Longest side of a stored photo, pixels. */
const LONGEST = 1600;

/** A photo made small enough to keep, as JPEG. @throws Error with a sentence for the painter */
export async function shrinkPhoto(file: File): Promise<Blob> {
  if (!(PHOTO_TYPES as readonly string[]).includes(file.type))
    throw new Error('This is not a JPEG, PNG or WebP picture. Choose a photo.');
  if (file.size > PHOTO_MAX_BYTES) throw new Error('This photo is over 10 MB. Save it smaller and choose it again.');
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    throw new Error('This picture can’t be read; the file may be damaged. Choose another.');
  }
  const scale = Math.min(1, LONGEST / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.round(bitmap.width * scale);
  canvas.height = Math.round(bitmap.height * scale);
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/jpeg', 0.85));
  if (!blob) throw new Error('This picture can’t be made smaller. Choose another.');
  return blob;
}

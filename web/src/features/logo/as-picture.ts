import DOMPurify from 'dompurify';
import type { Edit } from '@core/piece';
import { uploadMedia } from '../../platform/upload-media';
import { edit, openDocument, setView } from '../../store/desk-store';
import { addPicture } from '../layers/add-layers';
import { setLogoReport } from './logo-store';
import type { LogoReport } from './logo-store';
import { WORDS } from './words';

/** Longer side of the picture that is made, pixels. */
const SIDE = 2048;

/** A file drawn by the browser: cleaned, and as an image, in which nothing runs and nothing is loaded. */
async function drawn(text: string): Promise<Blob> {
  const clean = DOMPurify.sanitize(text, {
    USE_PROFILES: { svg: true, svgFilters: true },
    ADD_TAGS: ['use'],
    FORBID_TAGS: ['foreignObject', 'script', 'a'],
    ALLOWED_URI_REGEXP: /^(?:#|data:image\/(?:png|jpeg|webp);)/i,
  });
  const image = new Image();
  const address = URL.createObjectURL(new Blob([clean], { type: 'image/svg+xml' }));
  try {
    image.src = address;
    await image.decode();
    const [width, height] = [image.naturalWidth || SIDE, image.naturalHeight || SIDE];
    const scale = SIDE / Math.max(width, height);
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale)));
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    return await canvas.convertToBlob({ type: 'image/png' });
  } finally {
    URL.revokeObjectURL(address);
  }
}

/** An SVG file as a picture among the media. @throws Error if the browser cannot draw it, or it cannot be sent. */
export async function pictureOf(name: string, text: string): Promise<Extract<Edit, { type: 'media.add' }>['media']> {
  const file = new File([await drawn(text)], `${name}.png`, { type: 'image/png' });
  return (await uploadMedia(file, 'picture', () => undefined, new AbortController().signal)).media;
}

/** Puts the file of a report up as a picture in the place of its layers. */
export async function asPicture({ name, groupId, text }: LogoReport): Promise<void> {
  try {
    const media = await pictureOf(name, text);
    if (openDocument()?.piece.layers.some((layer) => layer.id === groupId))
      edit([{ type: 'layer.remove', ids: [groupId] }]);
    addPicture(media);
    setLogoReport(null);
  } catch {
    setView({ notice: WORDS.asPictureFailed });
  }
}

import { access } from 'node:fs/promises';
import { AppError, Cancelled } from '../../../platform/errors';
import { convertPicture, probe } from '../../../platform/ffmpeg';
import type { MediaKind } from './media-kind';

const MAX_PICTURE_PIXELS = 100_000_000;
/** Pictures are kept at most this large: no format is larger than 4096 px. */
const MAX_PICTURE_SIDE = 4096;

export const pictureKind: MediaKind = {
  demuxers: {
    'image/png': 'png_pipe',
    'image/apng': 'apng',
    'image/jpeg': 'jpeg_pipe',
    'image/webp': 'webp_pipe',
    'image/gif': 'gif',
    'image/bmp': 'bmp_pipe',
    'image/tiff': 'tiff_pipe',
  },
  async take({ file, format, name, signal }, to) {
    const found = await probe(file, format, signal);
    const { width = 0, height = 0 } = found?.streams.find((s) => s.codec_type === 'video') ?? {};
    if (width < 1 || height < 1) throw new AppError('PICTURE_UNREADABLE', name);
    if (width * height > MAX_PICTURE_PIXELS) throw new AppError('PICTURE_TOO_LARGE', name);
    const scale = Math.min(1, MAX_PICTURE_SIDE / Math.max(width, height));
    const size = [Math.max(1, Math.round(width * scale)), Math.max(1, Math.round(height * scale))] as const;
    try {
      await convertPicture(file, format, size, to, signal);
      // Of a picture that breaks off before its first frame ffmpeg makes nothing, and calls that a success.
      await access(to);
    } catch (cause) {
      if (cause instanceof Cancelled || (cause instanceof AppError && cause.code === 'DISK_FULL')) throw cause;
      throw new AppError('PICTURE_UNREADABLE', name, { cause });
    }
    const warning =
      scale < 1
        ? `“${name}” has ${width}×${height} pixels; it is kept at ${size[0]}×${size[1]}, the most a frame can show.`
        : null;
    return { width: size[0], height: size[1], warning };
  },
};

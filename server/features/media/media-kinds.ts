import type { MediaKindId } from '@core/piece';
import { audioKind } from './kinds/audio';
import { fontKind } from './kinds/font';
import { footageKind } from './kinds/footage';
import type { MediaKind } from './kinds/media-kind';
import { pieceKind } from './kinds/piece';
import { pictureKind } from './kinds/picture';

/** What the server does with each kind of media. */
export const SERVED_MEDIA: Readonly<Record<MediaKindId, MediaKind>> = {
  audio: audioKind,
  picture: pictureKind,
  footage: footageKind,
  piece: pieceKind,
  font: fontKind,
};

import * as z from 'zod';
import { DESTINATIONS, MAX_FRAME_SIDE, MIN_FRAME_SIDE } from '@core/piece';
import type { DestinationId, Format } from '@core/piece';
import { FRAME_RATES } from '@core/time';
import type { FrameRateLabel } from '@core/time';
import { WORDS } from './words';

export const DESTINATION_IDS = Object.keys(DESTINATIONS) as readonly DestinationId[]; // keys of the table
export const RATE_LABELS = Object.keys(FRAME_RATES) as readonly FrameRateLabel[];

const sideFits = (side: number): boolean => Number.isInteger(side) && side >= MIN_FRAME_SIDE && side <= MAX_FRAME_SIDE;

/** What the form for a new piece asks: the frames it is seen in, the first of which leads the others. */
export const newPieceSchema = z
  .object({
    name: z.string().trim().max(200),
    frames: z.array(z.enum([...DESTINATION_IDS, 'custom'])).min(1),
    custom: z.object({ width: z.number(), height: z.number() }),
    rate: z.enum(RATE_LABELS),
  })
  .refine(({ frames, custom }) => !frames.includes('custom') || (sideFits(custom.width) && sideFits(custom.height)), {
    path: ['custom'],
    message: WORDS.badSides(MIN_FRAME_SIDE, MAX_FRAME_SIDE),
  });

export type NewPiece = z.infer<typeof newPieceSchema>;
export type FrameChoice = NewPiece['frames'][number];

export const BEGIN: NewPiece = {
  name: WORDS.untitled,
  frames: ['wide'],
  custom: { width: 1280, height: 720 },
  rate: '30',
};

/** The frames that were chosen, as the document has them. */
export const formatsOf = ({ frames, custom }: NewPiece): Format[] =>
  frames.map((frame) =>
    frame === 'custom'
      ? { id: 'custom', name: WORDS.frames.custom, ...custom }
      : { id: frame, name: WORDS.frames[frame], width: DESTINATIONS[frame].width, height: DESTINATIONS[frame].height },
  );

import { Box, Flex } from '@chakra-ui/react';
import { useState } from 'react';
import { fillFrameEdits, focusEdits } from '@core/adapt';
import { PICTURE_FITS, footageOf } from '@core/piece';
import type { LayerOf } from '@core/piece';
import { edit, openDocument, setView } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { lookAtPicture } from './find-subject';
import { WORDS } from './words';

type PictureLayer = LayerOf<'picture'>;

/** The layer as it is by now; null if it is gone. */
const asItIs = (id: string) => {
  const piece = openDocument()?.piece;
  const layer = piece?.layers.find((one): one is PictureLayer => one.id === id && one.kind === 'picture');
  return piece && layer ? { piece, layer } : null;
};

/** Brings what matters in a picture into its frame, in every frame size. */
export async function findSubject(id: string): Promise<void> {
  const before = asItIs(id);
  const ref = before?.piece.media.find((media) => media.id === before.layer.content.mediaId);
  if (!ref) return;
  try {
    const { shape, find } = await lookAtPicture(ref);
    const now = asItIs(id);
    if (now && edit(focusEdits(now.piece, now.layer, shape, find))) setView({ notice: WORDS.isFound(ref.name) });
  } catch {
    setView({ notice: WORDS.cannotRead(ref.name) });
  }
}

/** How a picture lies in its frame. */
export function FramingSection({ layer }: { layer: PictureLayer }) {
  const { fit } = layer.content;
  const [isLooking, setIsLooking] = useState(false);
  const isFootage = footageOf(usePiece().media, layer) !== null;
  const fillFrame = () => {
    const now = asItIs(layer.id);
    if (now) edit(fillFrameEdits(now.piece, now.layer));
  };
  const look = async () => {
    setIsLooking(true);
    await findSubject(layer.id);
    setIsLooking(false);
  };
  return (
    <section aria-label={WORDS.framing}>
      <Box className="prop" gridTemplateColumns="auto 1fr">
        <span className="name">{WORDS.lies}</span>
        <Choice
          aria-label={WORDS.lies}
          value={fit}
          disabled={layer.locked}
          onChange={(e) => edit([{ type: 'layer.setContent', id: layer.id, content: { fit: e.target.value } }])}
        >
          {Object.entries(PICTURE_FITS).map(([id, label]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </Box>
      <Flex gap="6px" wrap="wrap" marginTop="4px">
        <Button variant="soft" disabled={layer.locked} onClick={fillFrame}>
          {WORDS.fillTheFrame}
        </Button>
        {fit === 'fill' && !isFootage && (
          <Button variant="soft" disabled={layer.locked || isLooking} title={WORDS.hint} onClick={() => void look()}>
            {isLooking ? WORDS.looks : WORDS.findTheSubject}
          </Button>
        )}
      </Flex>
    </section>
  );
}

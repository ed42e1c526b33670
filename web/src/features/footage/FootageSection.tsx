import { Flex } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { footageOf, footageSeconds } from '@core/piece';
import type { LayerOf } from '@core/piece';
import { framesPerSecond } from '@core/time';
import { edit } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { NumberField } from '../../ui/NumberField';
import { ProgressBar } from '../../ui/ProgressBar';
import { GroupTimeSection } from '../ties/GroupTimeSection';
import { Row } from '../ties/Row';
import { followTheSubject, showTheRest } from './footage-commands';
import { WORDS } from './words';

/** What is seen of footage, and when: nothing for a picture that does not move. */
export function FootageSection({ layer }: { layer: LayerOf<'picture'> }) {
  const media = usePiece().media;
  const shown = footageOf(media, layer);
  if (!shown) return null;
  const { footage, width = 0, height = 0 } = shown.ref;
  const seconds = footageSeconds(footage);
  const rate = framesPerSecond(footage.frameRate);
  return (
    <section aria-label={WORDS.footage}>
      <p className="muted">{WORDS.facts(seconds.toFixed(2), rate.toFixed(rate % 1 === 0 ? 0 : 2), width, height)}</p>
      <Row name={WORDS.startsAt}>
        <NumberField
          label={WORDS.startsAt}
          value={layer.content.from}
          unit="s"
          step={1 / rate}
          min={0}
          max={seconds}
          disabled={layer.locked}
          onChange={(from, gesture) => edit([{ type: 'layer.setContent', id: layer.id, content: { from } }], gesture)}
        />
      </Row>
      <Flex gap="6px" wrap="wrap" margin="6px 0">
        <Button variant="soft" disabled={layer.locked} onClick={() => showTheRest(layer.id)}>
          {WORDS.asLong}
        </Button>
        {layer.content.fit === 'fill' && <Following id={layer.id} isLocked={layer.locked} />}
      </Flex>
      <GroupTimeSection layer={layer} />
    </section>
  );
}

function Following({ id, isLocked }: { id: string; isLocked: boolean }) {
  const [share, setShare] = useState<number | null>(null);
  const abort = useRef<AbortController | null>(null);
  const follow = async () => {
    abort.current = new AbortController();
    setShare(0);
    await followTheSubject(id, setShare, abort.current.signal);
    setShare(null);
  };
  if (share === null)
    return (
      <Button variant="soft" disabled={isLocked} title={WORDS.followHint} onClick={() => void follow()}>
        {WORDS.follow}
      </Button>
    );
  return (
    <Flex gap="6px" align="center" width="100%">
      <ProgressBar label={WORDS.following} share={share} />
      <Button variant="quiet" onClick={() => abort.current?.abort()}>
        {WORDS.cancel}
      </Button>
    </Flex>
  );
}

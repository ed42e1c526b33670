import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Edit, KeptWardrobe } from '@core/piece';
import { saidBy } from '../../platform/api';
import { newId } from '../../platform/ids';
import { edit, openDocument, setView, undoEdit, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { NameField } from '../../ui/NameField';
import { bringOver, forgetWardrobe, keepWardrobe } from './kept';
import { WORDS } from './words';

const tell = (error: unknown): void => setView({ notice: saidBy(error, WORDS.couldNotBeReached) });

/** Puts a kept wardrobe on, with the files of its logos. @returns False if nothing was changed. */
function wear({ id, version, body }: KeptWardrobe): boolean {
  const o = openDocument();
  if (!o) return false;
  const { media } = o.piece;
  const names = new Map<string, string>();
  const adds: Edit[] = [];
  for (const ref of body.media) {
    const own = media.find(({ hash }) => hash === ref.hash);
    const name = own?.id ?? (media.some((other) => other.id === ref.id) ? newId() : ref.id);
    names.set(ref.id, name);
    if (!own) adds.push({ type: 'media.add', media: { ...ref, id: name } });
  }
  const logos = Object.fromEntries(
    Object.entries(body.wardrobe.logos).flatMap(([role, mediaId]) => {
      const name = names.get(mediaId);
      return name === undefined ? [] : [[role, name]];
    }),
  );
  return edit([...adds, { type: 'wardrobe.set', wardrobe: { ...body.wardrobe, logos, from: { id, version } } }]);
}

/** Wardrobes kept for all pieces: put on to look at, then worn or taken off again. */
export function KeptWardrobes() {
  const [kept, setKept] = useState<readonly KeptWardrobe[]>([]);
  const [isNaming, setNaming] = useState(false);
  const [tried, setTried] = useState<{ name: string; steps: number } | null>(null);
  const steps = useDesk((s) => s.history.done.length);
  useEffect(() => {
    void bringOver().then(setKept, tell);
  }, []);
  const tryOn = (one: KeptWardrobe) => {
    if (wear(one)) setTried({ name: one.name, steps: useDesk.getState().history.done.length });
  };
  // Only as long as nothing else was done.
  const isTrying = tried?.steps === steps;
  return (
    <section aria-label={WORDS.kept}>
      <Box as="p" className="muted" marginTop="0">
        {kept.length > 0 ? WORDS.kept : WORDS.nothingKept}
      </Box>
      {kept.map((one) => (
        <Flex key={one.id} className="list-row" alignItems="center" gap="6px">
          <Button
            variant="quiet"
            hasTip={false}
            flex="1"
            justifyContent="flex-start"
            aria-label={WORDS.tryOn(one.name)}
            onClick={() => tryOn(one)}
          >
            {one.name}
            {Object.entries(one.body.wardrobe.colours)
              .slice(0, 6)
              .map(([role, colour]) => (
                <span key={role} className="swatch" style={{ background: colour }} aria-hidden="true" />
              ))}
          </Button>
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.forget(one.name)}
            onClick={() => void forgetWardrobe(one.id).then(setKept, tell)}
          >
            ×
          </Button>
        </Flex>
      ))}
      {isTrying && (
        <Box role="status">
          <p>{WORDS.triesOn(tried.name)}</p>
          <Flex gap="6px">
            <Button
              variant="soft"
              onClick={() => {
                setTried(null);
                setView({ notice: WORDS.isWorn(tried.name) });
              }}
            >
              {WORDS.wear}
            </Button>
            <Button
              variant="quiet"
              onClick={() => {
                setTried(null);
                undoEdit();
              }}
            >
              {WORDS.takeOff}
            </Button>
          </Flex>
        </Box>
      )}
      {isNaming ? (
        <NameField
          label={WORDS.nameOfKept}
          name=""
          onDone={(name) => {
            setNaming(false);
            const o = openDocument();
            if (name === null || name.trim() === '' || !o) return;
            void keepWardrobe(name.trim().slice(0, 80), o.piece).then((all) => {
              setKept(all);
              setView({ notice: WORDS.isKept(name) });
            }, tell);
          }}
        />
      ) : (
        <Button variant="soft" onClick={() => setNaming(true)}>
          {WORDS.keep}
        </Button>
      )}
    </section>
  );
}

import { Box, Flex } from '@chakra-ui/react';
import { useEffect, useState } from 'react';
import type { Wardrobe } from '@core/piece';
import { newId } from '../../platform/ids';
import { setView, undoEdit, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { NameField } from '../../ui/NameField';
import { forgetWardrobe, keepWardrobe, keptWardrobes } from './kept';
import type { KeptWardrobe } from './kept';
import { setWardrobe } from './wardrobe-commands';
import { WORDS } from './words';

/** Wardrobes kept for all pieces: put on to look at, then worn or taken off again. */
export function KeptWardrobes({ wardrobe }: { wardrobe: Wardrobe }) {
  const [kept, setKept] = useState<readonly KeptWardrobe[]>([]);
  const [isNaming, setNaming] = useState(false);
  const [tried, setTried] = useState<{ name: string; steps: number } | null>(null);
  const steps = useDesk((s) => s.history.done.length);
  useEffect(() => {
    void keptWardrobes().then(setKept);
  }, []);
  const tryOn = ({ id, name, version, wardrobe: own }: KeptWardrobe) => {
    if (setWardrobe({ ...own, from: { id, version } }))
      setTried({ name, steps: useDesk.getState().history.done.length });
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
            {Object.entries(one.wardrobe.colours)
              .slice(0, 6)
              .map(([role, colour]) => (
                <span key={role} className="swatch" style={{ background: colour }} aria-hidden="true" />
              ))}
          </Button>
          <Button
            variant="quiet"
            padding="0 4px"
            aria-label={WORDS.forget(one.name)}
            onClick={() => void forgetWardrobe(one.id).then(setKept)}
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
            if (name === null) return;
            const { colours, fonts } = wardrobe;
            void keepWardrobe(name.slice(0, 80), { colours, fonts }, newId).then((all) => {
              setKept(all);
              setView({ notice: WORDS.isKept(name) });
            });
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

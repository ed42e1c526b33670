import { Box } from '@chakra-ui/react';
import { tellFlashing } from '@core/checks';
import { lookForFlashes } from '../../platform/checks-client';
import { FindingRow } from './FindingRow';
import { useScan } from './use-scan';
import { WORDS } from './words';

/** Whether the piece flashes so that it may harm people; every frame is painted for it. */
export function FlashCheck() {
  const { bar, found, isOld } = useScan(lookForFlashes, WORDS.lookForFlashes, WORDS.flashesCouldNot);
  return (
    <section aria-label={WORDS.flashes}>
      {bar}
      {found?.length === 0 && (
        <Box as="p" color={isOld ? 'muted' : 'moss'}>
          {WORDS.flashesAreWell}
          {isOld ? WORDS.beforeTheLastChange : ''}.
        </Box>
      )}
      {found?.map((flashing) => (
        <FindingRow
          key={`${flashing.kind}-${flashing.from}`}
          at={{ at: flashing.from, layerId: null, formatId: null }}
          text={tellFlashing(flashing)}
          color="ember"
        />
      ))}
    </section>
  );
}

import { Box, Flex } from '@chakra-ui/react';
import { Suspense, lazy, useState } from 'react';
import type { CheckId } from '@core/checks';
import { slotValues, withDescendants } from '@core/piece';
import type { GroupLayer, MadeFrom } from '@core/piece';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { useFindings } from '../run-through/use-findings';
import { WORDS as ROSTER_WORDS } from '../roster/words';
import { useKeptTemplates } from './use-kept-templates';
import { SlotFields } from './SlotFields';
import { fillSlot, markSlot, nameSlot, nextOne, renewMade } from './template-commands';
import { WORDS } from './words';

/** Of all checks the one that slots need: it runs with every edit while they are shown. */
const ROOM: readonly CheckId[] = ['room'];

const RosterDialog = lazy(() => import('../roster/RosterDialog'));

/** What a group was made from, on top of its details: its slots, and the next one of the same. */
export function SlotsSection({ layer }: { layer: GroupLayer }) {
  return layer.madeFrom ? <Slots key={layer.id} layer={layer} made={layer.madeFrom} /> : null;
}

/** The group whose first slot takes the caret when it is shown: the next one of the same. */
let freshGroup: string | null = null;

function Slots({ layer, made }: { layer: GroupLayer; made: MadeFrom }) {
  const { layers } = usePiece();
  const findings = useFindings(ROOM);
  const [hasRoster, setRoster] = useState(false);
  const [isFresh] = useState(() => freshGroup === layer.id);
  const { data: kept } = useKeptTemplates();
  const newer = kept?.find(({ id, template }) => id === made.id && (template?.version ?? 0) > made.version);
  const narrow = new Set(findings?.filter(({ severity }) => severity === 'error').map(({ layerId }) => layerId));
  const own = withDescendants(layers, [layer.id]);
  const inside = new Set(own.map(({ id }) => id));
  const tooLong = own.flatMap((one) => (narrow.has(one.id) && one.slot ? [one.slot.slotId] : []));
  const shortened = findings?.find(({ severity, layerId }) => severity === 'warning' && inside.has(layerId ?? ''));
  const next = (of: 'name' | 'mark') => {
    freshGroup = nextOne(layer, of);
  };
  return (
    <section aria-label={WORDS.slots}>
      <Box className="muted" fontSize="12px" marginBottom="6px">
        {WORDS.madeFrom(made.name, made.version)}
      </Box>
      <SlotFields
        slots={made.slots}
        values={slotValues(layers, layer)}
        tooLong={tooLong}
        disabled={layer.locked}
        autoFocus={isFresh}
        onChange={(slotId, value, before) => fillSlot(layer, slotId, value, before)}
      />
      {shortened && (
        <Box role="status" fontSize="12px" color="lamp" marginBottom="6px">
          {shortened.text}
        </Box>
      )}
      <Flex gap="6px" wrap="wrap" marginBottom="4px">
        {nameSlot(made) && (
          <Button variant="soft" onClick={() => next('name')}>
            {WORDS.nextName}
          </Button>
        )}
        {markSlot(made) && (
          <Button variant="soft" onClick={() => next('mark')}>
            {WORDS.nextMark}
          </Button>
        )}
        <Button variant="soft" onClick={() => setRoster(true)}>
          {ROSTER_WORDS.open}
        </Button>
        {newer?.template && (
          <Button variant="soft" disabled={layer.locked} onClick={() => renewMade(layer, newer)}>
            {WORDS.newerVersion(newer.template.version)}
          </Button>
        )}
      </Flex>
      {hasRoster && (
        <Suspense>
          <RosterDialog group={layer} made={made} onClose={() => setRoster(false)} />
        </Suspense>
      )}
      <hr className="rule" />
    </section>
  );
}

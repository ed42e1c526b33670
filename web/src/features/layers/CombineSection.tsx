import { PATH_OPERATIONS } from '@core/geometry';
import type { PathOperation } from '@core/geometry';
import type { GroupLayer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Row } from '../ties/Row';
import { groupToPiece } from '../within/within-commands';
import { WORDS } from './words';

/** Whether what is in a group is one shape, and how; and the way out of the piece altogether. */
export function CombineSection({ layer }: { layer: GroupLayer }) {
  return (
    <section aria-label={WORDS.combine}>
      <Row name={WORDS.combine}>
        <Choice
          aria-label={WORDS.combine}
          value={layer.content.combine ?? ''}
          disabled={layer.locked}
          onChange={(e) => {
            const combine = e.target.value === '' ? null : (e.target.value as PathOperation); // options of the table
            edit([{ type: 'group.setCombine', id: layer.id, combine }]);
          }}
        >
          <option value="">{WORDS.notCombined}</option>
          {Object.entries(PATH_OPERATIONS).map(([id, { label }]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      </Row>
      <Button variant="soft" disabled={layer.locked} onClick={() => void groupToPiece(layer)}>
        {WORDS.toPiece}
      </Button>
    </section>
  );
}

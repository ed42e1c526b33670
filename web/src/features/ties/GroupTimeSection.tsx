import { NEW_GROUP_TIME } from '@core/piece';
import type { GroupTime, Layer } from '@core/piece';
import { edit } from '../../store/desk-store';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { LagRow } from './LagRow';
import { Row } from './Row';
import { WORDS } from './words';

/** Lags as they begin. */
const FIRST = { repeat: { unit: 'beats', value: 4 }, freeze: { unit: 'beats', value: 2 } } as const;
const LAGS = ['repeat', 'freeze'] as const;

/** How time goes within a group, a piece within or footage: slower or faster, again and again, or not at all. */
export function GroupTimeSection({ layer }: { layer: Extract<Layer, { kind: 'group' | 'piece' | 'picture' }> }) {
  const time = layer.content.time ?? NEW_GROUP_TIME;
  const set = (change: Partial<GroupTime>, gesture: string | null = null) => {
    const next = { ...time, ...change };
    const isPlain = next.speed === 1 && !next.repeat && !next.freeze;
    edit([{ type: 'group.setTime', id: layer.id, time: isPlain ? null : next }], gesture);
  };
  return (
    <section aria-label={WORDS.timeInside}>
      <Row name={WORDS.speed}>
        <NumberField
          label={WORDS.speed}
          value={time.speed * 100}
          unit="%"
          min={0}
          max={1600}
          disabled={layer.locked}
          onChange={(value, gesture) => set({ speed: value / 100 }, gesture)}
        />
      </Row>
      {LAGS.map((id) => (
        <div key={id}>
          <Tick
            checked={time[id] !== null}
            disabled={layer.locked}
            onChange={(isOn) => set({ [id]: isOn ? FIRST[id] : null })}
          >
            {id === 'repeat' ? WORDS.playAgain : WORDS.standStill}
          </Tick>
          {time[id] && (
            <LagRow
              name={id === 'repeat' ? WORDS.every : WORDS.after}
              unitName={id === 'repeat' ? WORDS.everyUnit : WORDS.afterUnit}
              lag={time[id]}
              max={3600}
              disabled={layer.locked}
              onChange={(lag, gesture) => set({ [id]: lag }, gesture ?? null)}
            />
          )}
        </div>
      ))}
      {time.repeat && (
        <Tick checked={time.turns} disabled={layer.locked} onChange={(turns) => set({ turns })}>
          {WORDS.thereAndBack}
        </Tick>
      )}
    </section>
  );
}

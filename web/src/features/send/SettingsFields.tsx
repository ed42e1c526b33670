import { DITHERS, EXPORT_KINDS, LOUDNESS_TARGETS, QUALITIES } from '@core/formats';
import type { Dither, ExportSettings, Quality } from '@core/formats';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { Tick } from '../../ui/Tick';
import { FieldRow } from './FieldRow';
import { choose, useRenderChoice } from './render-choice';
import { WORDS } from './words';

type Rate = ExportSettings['rate'];

/** What each way of asking starts with. */
const RATES: Readonly<Record<Rate['by'], { readonly label: string; readonly usual: Rate }>> = {
  quality: { label: WORDS.byQuality, usual: { by: 'quality', quality: 'good' } },
  bits: { label: WORDS.byBits, usual: { by: 'bits', kilobits: 8000, isTwoPass: false } },
  size: { label: WORDS.bySize, usual: { by: 'size', megabytes: 15 } },
};

const set = (change: Partial<ExportSettings>): void =>
  choose({ settings: { ...useRenderChoice.getState().settings, ...change }, place: null });

function RateFields({ rate, hasPasses }: { rate: Rate; hasPasses: boolean }) {
  return (
    <FieldRow name={WORDS.rate}>
      <Choice
        aria-label={WORDS.rateBy}
        value={rate.by}
        onChange={(e) => set({ rate: RATES[e.target.value as Rate['by']].usual })} // options of the table
      >
        {Object.entries(RATES).map(([by, { label }]) => (
          <option key={by} value={by}>
            {label}
          </option>
        ))}
      </Choice>
      {rate.by === 'quality' && (
        <Choice
          aria-label={WORDS.quality}
          value={rate.quality}
          onChange={(e) => set({ rate: { by: 'quality', quality: e.target.value as Quality } })} // options of the table
        >
          {Object.entries(QUALITIES).map(([id, { label }]) => (
            <option key={id} value={id}>
              {label}
            </option>
          ))}
        </Choice>
      )}
      {rate.by === 'bits' && (
        <>
          <NumberField
            {...{ label: WORDS.kilobits, value: rate.kilobits / 1000, unit: 'Mbit/s', min: 0.05, max: 400, step: 0.1 }}
            {...{ decimals: 2, width: 92 }}
            onChange={(v) => set({ rate: { ...rate, kilobits: Math.round(v * 1000) } })}
          />
          {hasPasses && (
            <Tick checked={rate.isTwoPass} onChange={(isTwoPass) => set({ rate: { ...rate, isTwoPass } })}>
              {WORDS.twoPasses}
            </Tick>
          )}
        </>
      )}
      {rate.by === 'size' && (
        <NumberField
          {...{ label: WORDS.megabytes, value: rate.megabytes, unit: 'MB', min: 0.05, max: 20_000, step: 0.1 }}
          {...{ decimals: 2, width: 92 }}
          onChange={(megabytes) => set({ rate: { by: 'size', megabytes } })}
        />
      )}
    </FieldRow>
  );
}

function LoudnessFields({ loudness }: { loudness: ExportSettings['loudness'] }) {
  return (
    <FieldRow name={WORDS.loudness}>
      <Choice
        aria-label={WORDS.loudness}
        maxWidth="100%"
        value={loudness ? String(loudness.target) : 'mixed'}
        onChange={({ target: { value } }) =>
          set({ loudness: value === 'mixed' ? null : { target: Number(value), peak: loudness?.peak ?? -1 } })
        }
      >
        <option value="mixed">{WORDS.asMixed}</option>
        {Object.entries(LOUDNESS_TARGETS).map(([target, forWhat]) => (
          <option key={target} value={target}>
            {WORDS.lufs(Number(target), forWhat)}
          </option>
        ))}
      </Choice>
      {loudness && (
        <NumberField
          {...{ label: WORDS.truePeak, value: loudness.peak, unit: 'dBTP', min: -12, max: 0, step: 0.1 }}
          {...{ decimals: 1, width: 84 }}
          onChange={(peak) => set({ loudness: { ...loudness, peak } })}
        />
      )}
    </FieldRow>
  );
}

function MovingFields({ moving, isGif }: { moving: ExportSettings['moving']; isGif: boolean }) {
  const change = (some: Partial<ExportSettings['moving']>): void => set({ moving: { ...moving, ...some } });
  return (
    <>
      <FieldRow name={WORDS.longerSide}>
        <Tick checked={moving.longerSide === null} onChange={(isUsual) => change({ longerSide: isUsual ? null : 480 })}>
          {isGif ? WORDS.usualGif : WORDS.asLargeAsTheFrame}
        </Tick>
        {moving.longerSide !== null && (
          <NumberField
            {...{ label: WORDS.longerSide, value: moving.longerSide, unit: 'px', min: 64, max: 1920, decimals: 0 }}
            width={84}
            onChange={(v) => change({ longerSide: Math.round(v) })}
          />
        )}
      </FieldRow>
      <FieldRow name={WORDS.framesASecond}>
        <NumberField
          {...{ label: WORDS.framesASecond, min: 1, max: 50, decimals: 0, width: 60 }}
          value={moving.framesPerSecond ?? (isGif ? 15 : 50)}
          onChange={(v) => change({ framesPerSecond: Math.round(v) })}
        />
        <span className="muted">{WORDS.atMost}</span>
      </FieldRow>
      {isGif && (
        <FieldRow name={WORDS.dither}>
          <Choice
            aria-label={WORDS.dither}
            maxWidth="100%"
            value={moving.dither}
            onChange={(e) => change({ dither: e.target.value as Dither })} // options of the table
          >
            {Object.entries(DITHERS).map(([id, { label, hint }]) => (
              <option key={id} value={id}>
                {`${label}: ${hint}`}
              </option>
            ))}
          </Choice>
        </FieldRow>
      )}
      <FieldRow name={WORDS.plays}>
        <NumberField
          {...{ label: WORDS.plays, value: moving.plays, min: 0, max: 1000, decimals: 0, width: 60 }}
          onChange={(v) => change({ plays: Math.round(v) })}
        />
        <span className="muted">{moving.plays === 0 ? WORDS.againAndAgain : WORDS.times}</span>
      </FieldRow>
      <FieldRow name={WORDS.largest}>
        <Tick checked={moving.megabytes !== null} onChange={(isOn) => change({ megabytes: isOn ? 5 : null })}>
          {WORDS.atMost}
        </Tick>
        {moving.megabytes !== null && (
          <NumberField
            {...{
              label: WORDS.megabytes,
              value: moving.megabytes,
              unit: 'MB',
              min: 0.05,
              max: 500,
              step: 0.1,
              width: 84,
            }}
            onChange={(megabytes) => change({ megabytes })}
          />
        )}
      </FieldRow>
    </>
  );
}

/** What can be chosen of the kind of file. */
export function SettingsFields() {
  const { kind, settings } = useRenderChoice();
  const has = EXPORT_KINDS[kind].settings as readonly string[];
  return (
    <div role="group" aria-label={WORDS.settings}>
      {has.includes('rate') && <RateFields rate={settings.rate} hasPasses={has.includes('passes')} />}
      {has.includes('moving') && <MovingFields moving={settings.moving} isGif={kind === 'gif'} />}
      {has.includes('still') && (
        <FieldRow name={WORDS.quality}>
          <NumberField
            {...{ label: WORDS.quality, value: settings.still.quality, min: 1, max: 100, decimals: 0, width: 60 }}
            onChange={(v) => set({ still: { quality: Math.round(v) } })}
          />
        </FieldRow>
      )}
      {has.includes('loudness') && <LoudnessFields loudness={settings.loudness} />}
      {has.includes('captions') && (
        <FieldRow name={WORDS.captions}>
          <Tick
            checked={settings.captions === 'shown'}
            onChange={(isShown) => set({ captions: isShown ? 'shown' : 'left out' })}
          >
            {WORDS.inThePicture}
          </Tick>
        </FieldRow>
      )}
      {has.includes('chapters') && (
        <FieldRow name={WORDS.chapters}>
          <Tick checked={settings.hasChapters} onChange={(hasChapters) => set({ hasChapters })}>
            {WORDS.fromSections}
          </Tick>
        </FieldRow>
      )}
    </div>
  );
}

import { Input } from '@chakra-ui/react';
import { useState } from 'react';
import { CAPS, JOINS, STROKE_POSITIONS } from '@core/piece';
import type { StrokeStyle } from '@core/piece';
import { Choice } from '../../ui/Choice';
import { NumberField } from '../../ui/NumberField';
import { Row } from '../ties/Row';
import { WORDS } from './words';

const TABLES = { position: STROKE_POSITIONS, cap: CAPS, join: JOINS } as const;

/** How the line of a stroke is drawn: where it lies, its ends and corners, its dashes. */
export function StrokeFields({
  name,
  style,
  disabled,
  onChange,
}: {
  name: string;
  style: StrokeStyle;
  disabled: boolean;
  onChange: (style: StrokeStyle, gesture: string | null) => void;
}) {
  return (
    <>
      {(Object.keys(TABLES) as (keyof typeof TABLES)[]).map((field) => (
        <Row key={field} name={WORDS[field]}>
          <Choice
            aria-label={WORDS.of(WORDS[field], name)}
            value={style[field]}
            disabled={disabled}
            onChange={(e) => onChange({ ...style, [field]: e.target.value }, null)}
          >
            {Object.entries(TABLES[field]).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Choice>
        </Row>
      ))}
      {style.join === 'miter' && (
        <Row name={WORDS.miterLimit}>
          <NumberField
            label={WORDS.of(WORDS.miterLimit, name)}
            value={style.miterLimit}
            min={1}
            max={1000}
            step={0.1}
            disabled={disabled}
            onChange={(miterLimit, gesture) => onChange({ ...style, miterLimit }, gesture)}
          />
        </Row>
      )}
      <Row name={WORDS.dash}>
        <DashField
          label={WORDS.of(WORDS.dash, name)}
          dash={style.dash}
          disabled={disabled}
          onChange={(dash) => onChange({ ...style, dash }, null)}
        />
      </Row>
      {style.dash.length > 0 && (
        <Row name={WORDS.dashShift}>
          <NumberField
            label={WORDS.of(WORDS.dashShift, name)}
            value={style.dashShift}
            unit="px"
            disabled={disabled}
            onChange={(dashShift, gesture) => onChange({ ...style, dashShift }, gesture)}
          />
        </Row>
      )}
    </>
  );
}

/** Most lengths of dashes and gaps that are taken. */
const MOST_DASHES = 24;

/** Lengths of dash and gap in turn, as typed: "24 12". Nothing draws the whole line; what is no length is let go. */
function DashField({
  label,
  dash,
  disabled,
  onChange,
}: {
  label: string;
  dash: readonly number[];
  disabled: boolean;
  onChange: (dash: number[]) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const commit = () => {
    if (draft === null) return;
    setDraft(null);
    const lengths = draft
      .split(/[\s,;]+/)
      .filter((text) => text !== '')
      .map(Number);
    if (lengths.every((n) => n >= 0 && n <= 100_000)) onChange(lengths.slice(0, MOST_DASHES));
  };
  return (
    <Input
      unstyled
      className="num"
      aria-label={label}
      placeholder={WORDS.dashHint}
      value={draft ?? dash.join(' ')}
      disabled={disabled}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') e.currentTarget.blur();
      }}
    />
  );
}

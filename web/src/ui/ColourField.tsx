import { useState } from 'react';
import { isColour } from '@core/colour';

interface Props {
  readonly label: string;
  readonly value: string;
  readonly onChange: (value: string, gesture: string) => void;
  /** Only the swatch. */
  readonly compact?: boolean;
}

/** A colour by picker or by its hex text; alpha is the last two digits. */
export function ColourField({ label, value, onChange, compact = false }: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const alpha = value.length === 9 ? value.slice(7) : '';
  return (
    <span style={{ display: 'inline-flex', gap: 6, alignItems: 'center' }}>
      <input
        type="color"
        className="swatch"
        aria-label={compact ? label : `${label}, picker`}
        value={value.slice(0, 7)}
        onChange={(e) => onChange(e.target.value + alpha, `${label}-picker`)}
        style={{ background: value }}
      />
      {!compact && (
        <input
          className="num"
          aria-label={label}
          style={{ width: 84, cursor: 'text', textAlign: 'left' }}
          value={draft ?? value}
          spellCheck={false}
          onChange={(e) => setDraft(e.target.value)}
          onBlur={() => {
            const text = draft?.trim();
            setDraft(null);
            if (!text) return;
            const hex = text.startsWith('#') ? text : `#${text}`;
            if (isColour(hex) && hex !== value) onChange(hex, `${label}-typed-${hex}`);
          }}
          onKeyDown={(e) => {
            e.stopPropagation();
            if (e.key === 'Enter') e.currentTarget.blur();
          }}
        />
      )}
    </span>
  );
}

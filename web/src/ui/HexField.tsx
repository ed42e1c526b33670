import { Input } from '@chakra-ui/react';
import { useState } from 'react';
import { isColour } from '@core/colour';

/** A colour as hex digits; what is no colour is let go. */
export function HexField({
  label,
  value,
  onChange,
}: {
  label: string;
  value: string;
  onChange: (value: string, gesture: string) => void;
}) {
  const [draft, setDraft] = useState<string | null>(null);
  const commit = () => {
    const text = draft?.trim();
    setDraft(null);
    if (!text) return;
    const hex = text.startsWith('#') ? text : `#${text}`;
    if (isColour(hex) && hex !== value) onChange(hex, `${label}-typed-${hex}`);
  };
  return (
    <Input
      unstyled
      className="num hex"
      aria-label={label}
      value={draft ?? value}
      spellCheck={false}
      onChange={(e) => setDraft(e.target.value)}
      onBlur={commit}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Enter') e.currentTarget.blur();
      }}
    />
  );
}

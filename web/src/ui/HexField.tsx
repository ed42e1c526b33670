import { Input } from '@chakra-ui/react';
import { useState } from 'react';
import { isColour } from '@core/colour';
import { isRole } from '@core/piece';

/** A colour as hex digits, or a role of the wardrobe as `@role`; what is neither is let go. */
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
    const next = text.startsWith('#') || isRole(text) ? text : `#${text}`;
    if ((isColour(next) || isRole(next)) && next !== value) onChange(next, `${label}-typed-${next}`);
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

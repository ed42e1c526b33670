import { Input } from '@chakra-ui/react';
import { useRef, useState } from 'react';
import { newId } from '../platform/ids';
import { evaluateArithmetic } from './arithmetic';
import { WORDS } from './words';

interface Props {
  readonly label: string;
  readonly value: number;
  readonly unit?: string;
  /** Change for a pixel of dragging or an arrow key. */
  readonly step?: number;
  readonly min?: number;
  readonly max?: number;
  readonly decimals?: number;
  readonly width?: number;
  readonly disabled?: boolean;
  /** Several things are set at once and their values differ: shown as such until one is typed. */
  readonly isMixed?: boolean;
  /** `gesture` is the same for all changes of one drag, so that it is one undo. */
  readonly onChange: (value: number, gesture: string) => void;
}

/** A number that can be dragged sideways, typed with units and arithmetic, or stepped with the arrow keys. */
export function NumberField({
  label,
  value,
  unit = '',
  step = 1,
  min = -Infinity,
  max = Infinity,
  decimals = 2,
  width,
  disabled,
  isMixed = false,
  onChange,
}: Props) {
  const [draft, setDraft] = useState<string | null>(null);
  const drag = useRef<{ x: number; value: number; gesture: string; moved: boolean } | null>(null);
  const clip = (n: number) => Math.min(max, Math.max(min, n));
  const shown = `${Number(value.toFixed(decimals))}${unit ? (unit === '°' || unit === '%' ? unit : ` ${unit}`) : ''}`;
  const commit = () => {
    if (draft === null) return;
    const next = evaluateArithmetic(draft, value);
    setDraft(null);
    if (next !== null && (next !== value || isMixed)) onChange(clip(next), newId());
  };
  return (
    <Input
      unstyled
      className="num"
      aria-label={label}
      style={width ? { width } : undefined}
      value={draft ?? (isMixed ? WORDS.mixedValue : shown)}
      title={isMixed ? WORDS.mixedHint : undefined}
      disabled={disabled}
      inputMode="decimal"
      onChange={(e) => setDraft(e.target.value)}
      onFocus={(e) => {
        // What is seen stays and is selected, so that typing replaces it.
        setDraft(isMixed ? WORDS.mixedValue : shown);
        e.target.select();
      }}
      onBlur={commit}
      onKeyDown={(e) => {
        if (e.key === 'Enter') e.currentTarget.blur();
        else if (e.key === 'Escape') {
          setDraft(null);
          requestAnimationFrame(() => (document.activeElement as HTMLElement | null)?.blur());
        } else if (e.key === 'ArrowUp' || e.key === 'ArrowDown') {
          e.preventDefault();
          const next = clip(value + (e.key === 'ArrowUp' ? 1 : -1) * step * (e.shiftKey ? 10 : 1));
          setDraft(null);
          onChange(next, `${label}-arrows`);
        }
        // Combinations and F6 are the desk's in fields too; those that write are left alone there.
        if (!e.ctrlKey && !e.metaKey && e.key !== 'F6') e.stopPropagation();
      }}
      onPointerDown={(e) => {
        if (document.activeElement === e.currentTarget || e.button !== 0) return;
        e.preventDefault();
        e.currentTarget.setPointerCapture(e.pointerId);
        drag.current = { x: e.clientX, value, gesture: newId(), moved: false };
      }}
      onPointerMove={(e) => {
        const d = drag.current;
        if (!d) return;
        const dx = e.clientX - d.x;
        if (!d.moved && Math.abs(dx) < 3) return;
        d.moved = true;
        onChange(clip(d.value + Math.round(dx) * step * (e.shiftKey ? 10 : 1)), d.gesture);
      }}
      onPointerUp={(e) => {
        const d = drag.current;
        drag.current = null;
        if (d && !d.moved) e.currentTarget.focus();
      }}
    />
  );
}

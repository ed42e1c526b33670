import type { Layer } from '@core/piece';
import { usePiece } from '../../store/selectors';
import { Choice } from '../../ui/Choice';

/** Chooses another layer of the piece, or none. */
export function LayerChoice({
  label,
  none,
  layer,
  value,
  onChange,
}: {
  label: string;
  none: string;
  layer: Layer;
  value: string | null;
  onChange: (id: string | null) => void;
}) {
  const piece = usePiece();
  return (
    <Choice
      aria-label={label}
      value={value ?? ''}
      disabled={layer.locked}
      maxWidth="150px"
      onChange={(e) => onChange(e.target.value || null)}
    >
      <option value="">{none}</option>
      {piece.layers
        .filter((other) => other.id !== layer.id)
        .reverse()
        .map((other) => (
          <option key={other.id} value={other.id}>
            {other.name}
          </option>
        ))}
    </Choice>
  );
}

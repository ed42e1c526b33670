import { gestureDefinition } from '@core/motion';
import { EFFECT_KINDS } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { openPanel } from '../panels/panel-tabs';
import { WORDS } from './words';

interface MotionLink {
  readonly label: string;
  /** What the layer has of it, by name. */
  readonly names: readonly string[];
  readonly open: () => void;
}

const nameOf = (piece: Piece, id: string): string => piece.layers.find((one) => one.id === id)?.name ?? id;

const linksOf = (layer: Layer, piece: Piece): MotionLink[] => [
  {
    label: WORDS.gestures,
    names: layer.gestures.map(
      ({ gesture }) =>
        gestureDefinition(gesture)?.label ?? piece.gestures.find((own) => own.id === gesture)?.name ?? gesture,
    ),
    open: () => openPanel('motion', 'gestures'),
  },
  {
    label: WORDS.effects,
    names: layer.effects.map(({ kind }) => EFFECT_KINDS[kind].label),
    open: () => openPanel('picture', 'effects'),
  },
  {
    label: WORDS.masks,
    names: [...layer.masks.map((_, i) => String(i + 1)), ...(layer.matte ? [WORDS.matte] : [])],
    open: () => openPanel('picture', 'masks'),
  },
  {
    label: WORDS.audioDriven,
    names: layer.listens.map(({ source }) => source),
    open: () => openPanel('motion', 'listen'),
  },
  {
    label: WORDS.parent,
    names: layer.follow ? [nameOf(piece, layer.follow.layerId)] : [],
    open: () => openPanel('motion', 'follow'),
  },
  {
    label: WORDS.copies,
    names: layer.repeat ? [String(layer.repeat.count)] : [],
    open: () => openPanel('picture', 'copies'),
  },
];

/** What moves and changes a layer beyond its properties, each leading to the panel where it is edited. */
export function MotionLinks({ layer }: { layer: Layer }) {
  const piece = usePiece();
  return (
    <>
      {linksOf(layer, piece).map(({ label, names, open }) => (
        <div key={label} className="prop">
          <span />
          <span className="name">{label}</span>
          <Button
            variant="quiet"
            className="motion-link"
            aria-label={WORDS.editIn(label)}
            title={names.join(', ')}
            onClick={open}
          >
            <span className={names.length === 0 ? 'muted' : undefined}>{names.join(', ') || WORDS.noneYet}</span>
          </Button>
        </div>
      ))}
    </>
  );
}

import type { Layer, LayerOf } from '@core/piece';
import { edit, setView, useDesk } from '../../store/desk-store';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** Shows the points of a drawn shape on the canvas, to be edited there. */
export function PointsSection({ layer }: { layer: LayerOf<'path'> }) {
  const isShaping = useDesk((s) => s.shaping?.layerId === layer.id && s.shaping.maskId === null);
  return (
    <>
      <Button
        variant="soft"
        aria-pressed={isShaping}
        disabled={layer.locked}
        onClick={() => setView({ shaping: isShaping ? null : { layerId: layer.id, maskId: null } })}
      >
        {isShaping ? WORDS.doneWithPoints : WORDS.editPoints}
      </Button>
      {isShaping && <p className="muted">{WORDS.howPointsWork}</p>}
    </>
  );
}

/** Makes a drawn shape of one that is made by numbers. */
export function ToPointsSection({ layer }: { layer: Layer }) {
  return (
    <Button
      variant="soft"
      disabled={layer.locked}
      onClick={() => {
        if (edit([{ type: 'layer.toPath', id: layer.id }])) setView({ shaping: { layerId: layer.id, maskId: null } });
      }}
    >
      {WORDS.toPoints}
    </Button>
  );
}

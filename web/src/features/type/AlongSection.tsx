import { Span } from '@chakra-ui/react';
import { ALONG_SHAPES, trackOf } from '@core/piece';
import type { Edit, Layer, TextAlong, TextLayer } from '@core/piece';
import { ellipsePath, roundedRectanglePath } from '@core/geometry';
import { transformOutline } from '@core/text';
import { edit, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { valueNow } from '../desk/commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** The outline of a shape as a path for words, in pixels of the lead format. */
function outlineOf(shape: Layer): Extract<TextAlong, { shape: 'path' }> | null {
  const dimensions = valueNow(shape, 'dimensions');
  const scale = valueNow(shape, 'scale');
  if (!Array.isArray(dimensions) || !Array.isArray(scale)) return null;
  const [w, h] = [Math.max(1, dimensions[0] * Math.abs(scale[0])), Math.max(1, dimensions[1] * Math.abs(scale[1]))];
  const centred =
    shape.kind === 'ellipse'
      ? ellipsePath(w, h)
      : shape.kind === 'rectangle'
        ? roundedRectanglePath(w, h, Number(valueNow(shape, 'cornerRadius')))
        : null;
  if (centred) return { shape: 'path', d: transformOutline(centred, 1, 1, w / 2, h / 2), box: [w, h] };
  if (shape.kind !== 'path') return null;
  return {
    shape: 'path',
    d: transformOutline(shape.content.d, w / shape.content.box[0], h / shape.content.box[1], 0, 0),
    box: [w, h],
  };
}

/** Takes a shape's path for the words and brings them to where the shape is. */
function followShape(layer: TextLayer, shape: Layer): void {
  const along = outlineOf(shape);
  if (!along) return;
  const edits: Edit[] = [{ type: 'layer.setContent', id: layer.id, content: { along, area: null } }];
  for (const property of ['position', 'rotation'] as const) {
    const value = valueNow(shape, property);
    if (value !== null && trackOf(layer, property)?.keyframes.length === 0)
      edits.push({ type: 'value.set', layerId: layer.id, property, value });
  }
  edit(edits);
}

/** The curve a text runs along: none, an arc, a circle, a shape's outline or a path drawn by hand. */
export function AlongSection({ layer }: { layer: TextLayer }) {
  const piece = usePiece();
  const formatId = useDesk((s) => s.formatId);
  const { along } = layer.content;
  const set = (next: TextAlong | null, gesture: string | null = null) =>
    edit(
      [{ type: 'layer.setContent', id: layer.id, content: { along: next, ...(next ? { area: null } : {}) } }],
      gesture,
    );
  const shapes = piece.layers.filter((l) => l.kind === 'path' || l.kind === 'ellipse' || l.kind === 'rectangle');
  const draw = () => setView({ drawingFor: { kind: 'along', layerId: layer.id }, notice: WORDS.drawThePathOn });
  const start = (shape: string) => {
    if (shape === '') set(null);
    else if (shape === 'arc') set({ shape: 'arc' });
    else if (shape === 'circle') set({ shape: 'circle', radius: 300, inside: false });
    else if (shape === 'draw') draw();
    else {
      const found = shapes.find((l) => l.id === shape);
      if (found) followShape(layer, found);
    }
  };
  return (
    <>
      <div className="prop">
        <span />
        <span className="name">{WORDS.runs}</span>
        <Choice aria-label={WORDS.runsAlong} value={along?.shape ?? ''} onChange={(e) => start(e.target.value)}>
          <option value="">{WORDS.straight}</option>
          <option value="arc">{ALONG_SHAPES.arc}</option>
          <option value="circle">{ALONG_SHAPES.circle}</option>
          {along?.shape === 'path' && <option value="path">{ALONG_SHAPES.path}</option>}
          {formatId === piece.leadFormatId && <option value="draw">{WORDS.alongAPathYou}</option>}
          {shapes.length > 0 && (
            <optgroup label={WORDS.alongTheOutlineOf}>
              {shapes.map((l) => (
                <option key={l.id} value={l.id}>
                  {l.name}
                </option>
              ))}
            </optgroup>
          )}
        </Choice>
      </div>
      {along?.shape === 'circle' && (
        <div className="prop">
          <span />
          <span className="name muted">{WORDS.radius}</span>
          <Span display="flex" gap="4px">
            <NumberField
              label={WORDS.circleRadius}
              value={along.radius}
              unit="px"
              min={1}
              max={10_000}
              onChange={(radius, g) => set({ ...along, radius }, g)}
            />
            <Button
              variant="quiet"
              aria-pressed={along.inside}
              onClick={() => set({ ...along, inside: !along.inside })}
            >
              {WORDS.inside}
            </Button>
          </Span>
        </div>
      )}
    </>
  );
}

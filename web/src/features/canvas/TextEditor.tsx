import { Textarea } from '@chakra-ui/react';
import { useEffect, useRef, useState } from 'react';
import { scaleOf } from '@core/geometry';
import { colourOf, worn } from '@core/piece';
import type { Format, Layer } from '@core/piece';
import { cssFamily, registerCssFamily } from '../../platform/css-fonts';
import { newId } from '../../platform/ids';
import { playhead } from '../../platform/clock';
import { edit, setView } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { valueNow } from '../desk/commands';
import { useFittedPlace } from './fitted-place';
import { placeNow } from './place-now';
import { WORDS } from './words';

/** Height of capitals in most faces, em. */
const CAPITALS = 0.7;

/** Types into a text layer where it stands on the canvas. The painted layer is left out meanwhile. */
export function TextEditor({ layerId, zoom, format }: { layerId: string; zoom: number; format: Format }) {
  const piece = usePiece();
  const given = piece.layers.find((l) => l.id === layerId && l.kind === 'text');
  const layer = given && (worn(given, piece.wardrobe) as Extract<Layer, { kind: 'text' }>); // of the kind that was found
  const field = useRef<HTMLTextAreaElement>(null);
  const [gesture] = useState(newId);
  const family = layer?.content.family ?? '';
  useEffect(() => {
    if (family) void registerCssFamily(family, piece.media);
  }, [family, piece.media]);
  const times = useTimes();
  const place = useFittedPlace(piece, times, layer, format.id, playhead.seconds);
  const isThere = layer !== undefined && (!layer.content.area || place !== null);
  useEffect(() => {
    field.current?.focus();
    field.current?.select();
  }, [isThere]);
  if (!layer || !isThere) return null;
  const { fit, pivot, outer } = placeNow(piece, layer, format);
  const around = scaleOf(outer);
  const scale = valueNow(layer, 'scale') as [number, number];
  const size = (valueNow(layer, 'size') as number) * fit * around * zoom * scale[1];
  const { align, wrapWidth } = layer.content;
  const [x, y] = [pivot[0] * zoom, pivot[1] * zoom];
  const lines = layer.content.text.split('\n').length;
  const leading = valueNow(layer, 'leading') as number;
  const width = wrapWidth === null ? Math.max(size * 2, 4000) : wrapWidth * fit * around * zoom * scale[0];
  const left = align === 'left' ? x : align === 'right' ? x - width : x - width / 2;
  // Room above the capitals of a line, as CSS sets it; good enough while the words are typed.
  const above = ((leading - CAPITALS) * size) / 2;
  const block = lines * leading * size;
  const top = { top: y - above, middle: y - block / 2, bottom: y - block + above }[layer.content.stands];
  // Words that fill a place are edited where they came to stand, at the size they came out.
  const where = place
    ? {
        left: place.left * zoom - place.width * zoom * 0.02,
        top: place.top * zoom,
        width: place.width * zoom * 1.04,
        height: place.height * zoom * 1.1,
        fontSize: place.size * zoom,
        whiteSpace: 'pre-wrap' as const,
      }
    : {
        left,
        top,
        width,
        height: (lines + 0.4) * leading * size,
        fontSize: size,
        whiteSpace: wrapWidth === null ? ('pre' as const) : ('pre-wrap' as const),
      };
  const finish = () => setView({ editingText: null });
  return (
    <Textarea
      ref={field}
      aria-label={WORDS.textOnTheCanvas}
      value={layer.content.text}
      spellCheck={false}
      onChange={(e) => {
        const text = e.target.value;
        const isAutoNamed = layer.name === layer.content.text.slice(0, 60) || layer.name === 'Your words';
        edit(
          [
            { type: 'layer.setContent', id: layer.id, content: { text } },
            ...(isAutoNamed && text.trim()
              ? [{ type: 'layer.rename' as const, id: layer.id, name: text.split('\n')[0]!.slice(0, 60) }]
              : []),
          ],
          gesture,
        );
        playhead.set(playhead.seconds);
      }}
      onBlur={finish}
      onKeyDown={(e) => {
        e.stopPropagation();
        if (e.key === 'Escape' || (e.key === 'Enter' && (e.ctrlKey || e.metaKey))) finish();
      }}
      onPointerDown={(e) => e.stopPropagation()}
      position="absolute"
      fontStyle={layer.content.italic ? 'italic' : 'normal'}
      background="transparent"
      border="0"
      padding="0"
      outline="none"
      resize="none"
      overflow="hidden"
      caretColor="var(--lamp)"
      textShadow="0 0 1px #0008"
      zIndex="4"
      style={{
        ...where,
        transform: `rotate(${valueNow(layer, 'rotation') as number}deg)`,
        fontFamily: `'${cssFamily(family)}'`,
        fontWeight: valueNow(layer, 'weight') as number,
        lineHeight: leading,
        letterSpacing: `${valueNow(layer, 'tracking') as number}em`,
        textAlign: align,
        color: colourOf(piece.wardrobe, valueNow(layer, 'fill') as string),
      }}
    />
  );
}

import { trackOf } from '@core/piece';
import type { Layer, Piece } from '@core/piece';
import { inkOn, layerColour } from './layer-colour';

/** A tiny picture of what a layer draws. */
export function LayerPicture({ layer, media: files }: { layer: Layer; media: Piece['media'] }) {
  const colour = layerColour(layer);
  const frame = { width: 20, height: 18, flex: 'none', borderRadius: 4 } as const;
  if (layer.kind === 'text')
    return (
      <span
        aria-hidden="true"
        style={{
          ...frame,
          background: colour,
          color: inkOn(colour),
          fontSize: 10.5,
          fontWeight: 700,
          display: 'grid',
          placeItems: 'center',
          overflow: 'hidden',
        }}
      >
        {layer.content.text.trim().slice(0, 2)}
      </span>
    );
  if (layer.kind === 'picture') {
    const media = files.find((m) => m.id === layer.content.mediaId);
    return (
      <img
        alt=""
        src={media ? `/api/media/${media.hash}/picture` : undefined}
        style={{ ...frame, objectFit: 'cover' }}
      />
    );
  }
  return (
    <svg viewBox="-11 -10 22 20" style={frame} aria-hidden="true">
      {layer.kind === 'rectangle' && <rect x="-9" y="-6" width="18" height="12" rx="1.5" fill={colour} />}
      {layer.kind === 'ellipse' && <ellipse rx="8" ry="8" fill={colour} />}
      {layer.kind === 'path' && (
        <path
          transform={`scale(${17 / Math.max(...layer.content.box)}) translate(${-layer.content.box[0] / 2} ${-layer.content.box[1] / 2})`}
          d={layer.content.d}
          fill={(trackOf(layer, 'fill')?.value as string | undefined)?.endsWith('00') ? 'none' : colour}
          stroke={colour}
          strokeWidth={Math.max(...layer.content.box) / 14}
        />
      )}
    </svg>
  );
}

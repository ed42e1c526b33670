import { useMemo, useRef } from 'react';
import { evaluateTrack, prepareTrack } from '@core/motion';
import type { Format, Layer } from '@core/piece';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { placeNow } from './place-now';

const SAMPLES = 160;

/** The way a layer travels: its path with a star at each keyframe; the selected one has handles that bend it. */
export function MotionPathHandles({ layer, format, zoom }: { layer: Layer; format: Format; zoom: number }) {
  const times = useTimes();
  const piece = usePiece();
  const selectedKeys = useDesk((s) => s.selectedKeys);
  const track = layer.tracks.position;
  const drag = useRef<{
    keyId: string;
    side: 'tangentIn' | 'tangentOut';
    from: readonly [number, number];
    start: readonly [number, number];
    gesture: string;
  } | null>(null);
  const px = 1 / zoom;
  const path = useMemo(() => {
    if (!track || track.keyframes.length < 2) return null;
    const prepared = prepareTrack(track, times.timeOf);
    const [from, to] = [prepared.times[0] ?? 0, prepared.times[prepared.times.length - 1] ?? 0];
    return Array.from(
      { length: SAMPLES + 1 },
      (_, i) => evaluateTrack(prepared, from + ((to - from) * i) / SAMPLES) as [number, number],
    ); // a position track
  }, [track, times]);
  if (!track || !path) return null;
  const [cx, cy] = [format.width / 2, format.height / 2];
  // The layer travels in the pixels of the group it is in.
  const { outer } = placeNow(piece, layer, format);
  return (
    <g transform={`matrix(${outer.join(' ')})`}>
      <polyline
        points={path.map(([x, y]) => `${x + cx},${y + cy}`).join(' ')}
        fill="none"
        stroke="var(--tide)"
        strokeWidth={1.3 * px}
        strokeDasharray={`${4 * px} ${3 * px}`}
        pointerEvents="none"
      />
      {track.keyframes.map((key) => {
        const [x, y] = key.value as [number, number]; // a position track
        const isOn = selectedKeys.some((ref) => ref.keyId === key.id);
        const handles = isOn ? (['tangentIn', 'tangentOut'] as const) : [];
        return (
          <g key={key.id} transform={`translate(${x + cx} ${y + cy})`}>
            {handles.map((side) => {
              const t = key[side] ?? (side === 'tangentOut' ? [40 * px, 0] : [-40 * px, 0]);
              return (
                <g key={side}>
                  <line x1={0} y1={0} x2={t[0]} y2={t[1]} stroke="var(--tide)" strokeWidth={px} />
                  <circle
                    data-handle={side}
                    cx={t[0]}
                    cy={t[1]}
                    r={5 * px}
                    fill="#11151b"
                    stroke="var(--tide)"
                    strokeWidth={1.5 * px}
                    cursor="move"
                    onPointerDown={(e) => {
                      e.stopPropagation();
                      e.currentTarget.setPointerCapture(e.pointerId);
                      drag.current = {
                        keyId: key.id,
                        side,
                        from: [e.clientX, e.clientY],
                        start: [t[0], t[1]],
                        gesture: newId(),
                      };
                    }}
                    onPointerMove={(e) => {
                      const d = drag.current;
                      if (!d || d.side !== side) return;
                      const next: [number, number] = [
                        d.start[0] + (e.clientX - d.from[0]) * px,
                        d.start[1] + (e.clientY - d.from[1]) * px,
                      ];
                      const ref = { layerId: layer.id, property: 'position' as const, keyId: key.id };
                      edit(
                        [
                          {
                            type: 'keys.setTangents',
                            ref,
                            [side]: next,
                            ...(e.altKey
                              ? {}
                              : { [side === 'tangentIn' ? 'tangentOut' : 'tangentIn']: [-next[0], -next[1]] }),
                          },
                        ],
                        d.gesture,
                      );
                    }}
                    onPointerUp={() => {
                      drag.current = null;
                    }}
                    onDoubleClick={(e) => {
                      e.stopPropagation();
                      edit([
                        {
                          type: 'keys.setTangents',
                          ref: { layerId: layer.id, property: 'position', keyId: key.id },
                          tangentIn: null,
                          tangentOut: null,
                        },
                      ]);
                    }}
                  />
                </g>
              );
            })}
            <path
              d="M0 -7C0.6 -2.6 2.6 -0.6 7 0C2.6 0.6 0.6 2.6 0 7C-0.6 2.6 -2.6 0.6 -7 0C-2.6 -0.6 -0.6 -2.6 0 -7Z"
              transform={`scale(${px * (isOn ? 1.3 : 1)})`}
              fill={key.at.kind === 'pinned' ? 'var(--lamp)' : '#11151b'}
              stroke={key.at.kind === 'pinned' ? '#11151b' : 'var(--lamp)'}
              cursor="pointer"
              onPointerDown={(e) => {
                e.stopPropagation();
                setView({ selectedKeys: [{ layerId: layer.id, property: 'position', keyId: key.id }] });
              }}
            />
          </g>
        );
      })}
    </g>
  );
}

import { Box, Flex, Span } from '@chakra-ui/react';
import { useRef } from 'react';
import { NAMED_CURVES, evaluateEasing } from '@core/motion';
import type { CurveName, Easing, EasingType, Keyframe } from '@core/motion';
import { findKey } from '@core/piece';
import { beatMoment, beatToSeconds, freeMoment, secondsToBeat } from '@core/time';
import { newId } from '../../platform/ids';
import { edit, useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { reverseKeys, setEasing, stretchKeys } from '../desk/commands';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

const KINDS = {
  linear: { label: WORDS.linear, make: (): Easing => ({ type: 'linear' }) },
  hold: { label: WORDS.hold, make: (): Easing => ({ type: 'hold' }) },
  named: { label: WORDS.namedCurve, make: (): Easing => ({ type: 'named', name: 'ease-in-out' }) },
  bezier: { label: WORDS.ownCurve, make: (): Easing => ({ type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 }) },
  spring: { label: WORDS.spring, make: (): Easing => ({ type: 'spring', oscillations: 2, damping: 0.35 }) },
  bounce: { label: WORDS.bounce, make: (): Easing => ({ type: 'bounce', bounces: 3, restitution: 0.55 }) },
} as const satisfies Record<EasingType, { label: string; make: () => Easing }>;

const W = 200;
const H = 120;
const TOP = 26;
const toX = (u: number) => 12 + u * (W - 24);
const toY = (v: number) => TOP + (1 - v) * (H - 2 * TOP);

/**
 * The easing of the selected keyframes: its kind, its curve with handles to drag, its parameters; and what pins the
 * keyframe.
 */
export function EasingEditor() {
  const piece = usePiece();
  const times = useTimes();
  const selectedKeys = useDesk((s) => s.selectedKeys);
  const drag = useRef<{ point: 1 | 2; gesture: string } | null>(null);
  const first = selectedKeys[0];
  const key: Keyframe | undefined = first && findKey(piece, first);
  if (!key) return null;
  const { easing } = key;
  const curve = Array.from(
    { length: 101 },
    (_, i) => `${toX(i / 100).toFixed(1)},${toY(evaluateEasing(easing, i / 100)).toFixed(1)}`,
  ).join(' ');
  const handles =
    easing.type === 'bezier'
      ? ([
          [1, easing.x1, easing.y1],
          [2, easing.x2, easing.y2],
        ] as const)
      : [];
  const seconds = times.timeOf(key.at);
  const togglePin = () => {
    edit([
      {
        type: 'keys.place',
        moves: selectedKeys.flatMap((ref) => {
          const k = findKey(piece, ref);
          if (!k) return [];
          const t = times.timeOf(k.at);
          if (key.at.kind === 'pinned') return [{ ref, at: freeMoment(t) }];
          const nearest = Math.round(secondsToBeat(times.grid, t) * 12) / 12;
          return [{ ref, at: beatMoment(nearest, times.grid) }];
        }),
      },
    ]);
  };
  return (
    <Box display="grid" gap="7px" marginTop="6px">
      <Choice
        aria-label={WORDS.easing}
        value={easing.type}
        onChange={(e) => setEasing(KINDS[e.target.value as EasingType].make())}
      >
        {Object.entries(KINDS).map(([id, k]) => (
          <option key={id} value={id}>
            {k.label}
          </option>
        ))}
      </Choice>
      <svg
        viewBox={`0 0 ${W} ${H}`}
        className="curve"
        role="img"
        aria-label={WORDS.easingCurve(KINDS[easing.type].label)}
        onPointerMove={(e) => {
          const d = drag.current;
          if (!d || easing.type !== 'bezier') return;
          const rect = e.currentTarget.getBoundingClientRect();
          const x = Math.min(1, Math.max(0, (((e.clientX - rect.left) / rect.width) * W - 12) / (W - 24)));
          const y = Math.min(2, Math.max(-1, 1 - (((e.clientY - rect.top) / rect.height) * H - TOP) / (H - 2 * TOP)));
          const round = (n: number) => Math.round(n * 1000) / 1000;
          setEasing(
            d.point === 1 ? { ...easing, x1: round(x), y1: round(y) } : { ...easing, x2: round(x), y2: round(y) },
            d.gesture,
          );
        }}
        onPointerUp={() => (drag.current = null)}
      >
        {[0, 1].map((v) => (
          <line key={v} x1={12} x2={W - 12} y1={toY(v)} y2={toY(v)} stroke="var(--line)" />
        ))}
        <polyline points={curve} fill="none" stroke="var(--lamp)" strokeWidth="2" strokeLinejoin="round" />
        {handles.map(([point, x, y]) => (
          <g key={point}>
            <line
              x1={toX(point === 1 ? 0 : 1)}
              y1={toY(point === 1 ? 0 : 1)}
              x2={toX(x)}
              y2={toY(y)}
              stroke="var(--tide)"
            />
            <circle
              data-handle={`curve-${point}`}
              cx={toX(x)}
              cy={toY(y)}
              r="6"
              fill="var(--tide)"
              cursor="move"
              onPointerDown={(e) => {
                (e.currentTarget.ownerSVGElement as SVGSVGElement).setPointerCapture(e.pointerId);
                drag.current = { point, gesture: newId() };
              }}
            />
          </g>
        ))}
      </svg>
      {easing.type === 'named' && (
        <Choice
          aria-label={WORDS.curve}
          value={easing.name}
          onChange={(e) => setEasing({ type: 'named', name: e.target.value as CurveName })}
        >
          {Object.entries(NAMED_CURVES).map(([id, c]) => (
            <option key={id} value={id}>
              {c.label}
            </option>
          ))}
        </Choice>
      )}
      {easing.type === 'spring' && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.swings}</span>
            <NumberField
              label={WORDS.swings}
              value={easing.oscillations}
              step={0.05}
              min={0.25}
              max={12}
              onChange={(oscillations, g) => setEasing({ ...easing, oscillations }, g)}
            />
          </div>
          <div className="prop">
            <span />
            <span className="name">{WORDS.damping}</span>
            <NumberField
              label={WORDS.damping}
              value={easing.damping}
              step={0.01}
              min={0.05}
              max={1}
              onChange={(damping, g) => setEasing({ ...easing, damping }, g)}
            />
          </div>
        </>
      )}
      {easing.type === 'bounce' && (
        <>
          <div className="prop">
            <span />
            <span className="name">{WORDS.bounces}</span>
            <NumberField
              label={WORDS.bounces}
              value={easing.bounces}
              step={1}
              min={0}
              max={8}
              decimals={0}
              onChange={(n, g) => setEasing({ ...easing, bounces: Math.round(n) }, g)}
            />
          </div>
          <div className="prop">
            <span />
            <span className="name">{WORDS.springBack}</span>
            <NumberField
              label={WORDS.springBack}
              value={easing.restitution}
              step={0.01}
              min={0.1}
              max={0.95}
              onChange={(restitution, g) => setEasing({ ...easing, restitution }, g)}
            />
          </div>
        </>
      )}
      <div className="prop">
        <span />
        <span className="name">{key.at.kind === 'pinned' ? WORDS.pinned : WORDS.free}</span>
        <Span display="flex" gap="4px">
          <NumberField
            label={key.at.kind === 'pinned' && key.at.to.type === 'beat' ? WORDS.beat : WORDS.seconds}
            value={key.at.kind === 'pinned' && key.at.to.type === 'beat' ? key.at.to.beat + 1 : seconds}
            step={key.at.kind === 'pinned' ? 0.25 : 0.01}
            decimals={3}
            onChange={(v, g) =>
              first &&
              edit(
                [
                  {
                    type: 'keys.place',
                    moves: [
                      {
                        ref: first,
                        at:
                          key.at.kind === 'pinned' && key.at.to.type === 'beat'
                            ? { ...key.at, to: { type: 'beat', beat: v - 1 }, last: beatToSeconds(times.grid, v - 1) }
                            : freeMoment(v),
                      },
                    ],
                  },
                ],
                g,
              )
            }
          />
          <Button variant="quiet" onClick={togglePin}>
            {key.at.kind === 'pinned' ? WORDS.setFree : 'pin'}
          </Button>
        </Span>
      </div>
      {selectedKeys.length > 1 && (
        <Flex gap="4px" flexWrap="wrap">
          <Button variant="soft" onClick={reverseKeys}>
            {WORDS.reverse}
          </Button>
          <Button variant="soft" onClick={() => stretchKeys(2)}>
            {WORDS.stretch2}
          </Button>
          <Button variant="soft" onClick={() => stretchKeys(0.5)}>
            {WORDS.squeeze}
          </Button>
        </Flex>
      )}
    </Box>
  );
}

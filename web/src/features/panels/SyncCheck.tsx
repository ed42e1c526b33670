import { Box, Flex, Span } from '@chakra-ui/react';
import { BarElement, Chart, LinearScale, CategoryScale } from 'chart.js';
import { useMemo } from 'react';
import { Bar } from 'react-chartjs-2';
import { HIT_KINDS, isOnBeat, landingEdits, visibleHits } from '@core/checks';
import type { VisibleHit } from '@core/checks';
import { gestureDefinition } from '@core/motion';
import { propertyDefinition } from '@core/piece';
import type { Piece } from '@core/piece';
import { beatToBar, formatBarBeat } from '@core/time';
import { useTheme } from '../../app/use-theme';
import { edit, setView } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { lookAt } from '../run-through/look-at';
import { WORDS } from './words';

Chart.register(BarElement, LinearScale, CategoryScale);

const words = (hit: VisibleHit) =>
  Math.abs(hit.late) < 0.0005
    ? WORDS.onIt
    : WORDS.ms(Math.abs(hit.late * 1000).toFixed(0), hit.late > 0 ? 'late' : 'early');

function land(hits: readonly VisibleHit[]): void {
  if (edit(landingEdits(hits))) setView({ notice: WORDS.landedMovement(hits.length) });
}

/** What moves: the properties that are keyframed, or the gesture by name. */
function movedBy(piece: Piece, hit: VisibleHit): string {
  if (hit.useId === null) return hit.properties.map((p) => propertyDefinition(p).label.toLowerCase()).join(', ');
  const id = piece.layers.find((l) => l.id === hit.layerId)?.gestures.find((g) => g.id === hit.useId)?.gesture ?? '';
  return gestureDefinition(id)?.label ?? piece.gestures.find((g) => g.id === id)?.name ?? 'gesture';
}

/** Where each movement is seen to hit, against the lattice, and one click to land them all. */
export function SyncCheck() {
  const piece = usePiece();
  const times = useTimes();
  const [theme] = useTheme();
  const hits = useMemo(() => visibleHits(piece, times), [piece, times]);
  const colours = useMemo(() => {
    const style = getComputedStyle(document.documentElement);
    const read = (name: string) => style.getPropertyValue(name).trim();
    return { theme, moss: read('--moss'), ember: read('--ember'), muted: read('--muted'), line: read('--line') };
  }, [theme]);
  const off = hits.filter((h) => !isOnBeat(h));
  const nameOf = (hit: VisibleHit) => piece.layers.find((l) => l.id === hit.layerId)?.name ?? '';
  return (
    <section aria-label={WORDS.syncCheck}>
      <h2 className="title">{WORDS.onTheBeat}</h2>
      {hits.length === 0 && <p className="muted">{WORDS.nothingMovesOnOr}</p>}
      {hits.length > 0 && (
        <>
          <Box as="p" className="muted" margin="0 0 6px">
            {WORDS.ofMovementsHitWithin(hits.length - off.length, hits.length)}
          </Box>
          <Box
            height="74px"
            role="img"
            aria-label={WORDS.framesEarlyOrLate(
              hits.length,
              Math.max(...hits.map((h) => Math.abs(h.frames))).toFixed(1),
            )}
          >
            <Bar
              data={{
                labels: hits.map((_, i) => i),
                datasets: [
                  {
                    data: hits.map((h) => h.frames),
                    backgroundColor: hits.map((h) => (isOnBeat(h) ? colours.moss : colours.ember)),
                    minBarLength: 2,
                  },
                ],
              }}
              options={{
                animation: false,
                maintainAspectRatio: false,
                plugins: { legend: { display: false }, tooltip: { enabled: false } },
                scales: {
                  x: { display: false },
                  y: {
                    suggestedMin: -2,
                    suggestedMax: 2,
                    ticks: { color: colours.muted, maxTicksLimit: 3, font: { size: 10 } },
                    grid: { color: colours.line, lineWidth: 0.5 },
                    border: { display: false },
                    title: { display: true, text: WORDS.framesLate, color: colours.muted, font: { size: 10 } },
                  },
                },
              }}
            />
          </Box>
          {off.length > 0 && (
            <Button variant="lamp" margin="8px 0" onClick={() => land(off)}>
              {WORDS.landAll(off.length)}
            </Button>
          )}
          {hits.map((hit) => (
            <Flex
              key={`${hit.layerId}-${hit.useId ?? hit.keys[0]?.keyId ?? ''}`}
              className="list-row"
              gap="4px"
              alignItems="center"
            >
              <Button
                variant="quiet"
                flex="1"
                justifyContent="flex-start"
                padding="0"
                whiteSpace="normal"
                textAlign="left"
                color="text"
                onClick={() => lookAt({ layerId: hit.layerId, formatId: null, at: Math.max(0, hit.at) })}
              >
                <span>
                  {nameOf(hit)} {HIT_KINDS[hit.kind]} <span className="muted">({movedBy(piece, hit)})</span>
                  <br />
                  <span className="mono muted">{formatBarBeat(beatToBar(times.grid, hit.beat))}</span>{' '}
                  <Span color={isOnBeat(hit) ? 'moss' : 'ember'}>
                    {WORDS.frames(words(hit), Math.abs(hit.frames).toFixed(1))}
                  </Span>
                </span>
              </Button>
              {!isOnBeat(hit) && (
                <Button variant="soft" aria-label={WORDS.landHit(nameOf(hit))} onClick={() => land([hit])}>
                  {WORDS.land}
                </Button>
              )}
            </Flex>
          ))}
        </>
      )}
    </section>
  );
}

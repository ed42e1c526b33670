import { Box, Flex, Span } from '@chakra-ui/react';
import { CategoryScale, Chart, Filler, LineElement, LinearScale, PointElement, Tooltip } from 'chart.js';
import { useMemo } from 'react';
import { Line } from 'react-chartjs-2';
import { overallTempo } from '@core/time';
import { songToPiece } from '@core/piece';
import { formatClock } from '@core/time';
import { useTheme } from '../../app/use-theme';
import { playhead } from '../../platform/clock';
import { setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { strengthCurve, tempoCurve } from './song-chart';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

Chart.register(LinearScale, CategoryScale, PointElement, LineElement, Filler, Tooltip);

const CHART_POINTS = 240;

/** What was heard in the song: its parts, its loudness, its tempo over time. */
export function FactsTab() {
  const { music } = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const showsCurves = useDesk((s) => s.showsCurves);
  const [theme] = useTheme();
  const tempo = useMemo(() => tempoCurve(times.grid), [times.grid]);
  const strength = useMemo(
    () => (analysis && music ? strengthCurve(analysis, music, CHART_POINTS) : []),
    [analysis, music],
  );
  // Canvas knows no custom properties; read again when the theme changes.
  const colours = useMemo(() => {
    const style = getComputedStyle(document.documentElement);
    const read = (name: string) => style.getPropertyValue(name).trim();
    return { theme, lamp: read('--lamp'), tide: read('--tide'), muted: read('--muted'), line: read('--line') };
  }, [theme]);
  if (!music || !analysis) return <p className="muted">{WORDS.theSongIsBeing}</p>;
  const middle = overallTempo(times.grid);
  const { loudness } = analysis;
  return (
    <>
      <Box as="p" className="muted" margin="0 0 4px">
        {WORDS.tempoAndStrengthOf}
      </Box>
      <Box height="130px" role="img" aria-label={WORDS.tempoOverTheSong(middle.toFixed(1))}>
        <Line
          data={{
            datasets: [
              { label: 'BPM', data: tempo, borderColor: colours.lamp, borderWidth: 1.5, pointRadius: 0, yAxisID: 'y' },
              {
                label: WORDS.strength,
                data: strength,
                borderColor: colours.tide,
                backgroundColor: `${colours.tide}33`,
                borderWidth: 0.6,
                pointRadius: 0,
                fill: true,
                yAxisID: 'strength',
              },
            ],
          }}
          options={{
            animation: false,
            maintainAspectRatio: false,
            parsing: false,
            normalized: true,
            plugins: { legend: { display: false }, tooltip: { enabled: false } },
            onClick: (event, _elements, chart) => {
              const x = chart.scales.x?.getValueForPixel(event.x ?? 0);
              if (x !== undefined) playhead.set(Math.max(0, x));
            },
            scales: {
              x: {
                type: 'linear',
                min: 0,
                max: times.end,
                ticks: { color: colours.muted, maxTicksLimit: 5, font: { size: 10 } },
                grid: { display: false },
                border: { color: colours.line },
              },
              y: {
                min: Math.floor(middle * 0.85),
                max: Math.ceil(middle * 1.15),
                ticks: { color: colours.muted, maxTicksLimit: 4, font: { size: 10 } },
                grid: { color: colours.line, lineWidth: 0.5 },
                border: { display: false },
              },
              strength: { display: false, min: 0, max: 1.6 },
            },
          }}
        />
      </Box>
      <Button
        variant="soft"
        aria-pressed={showsCurves}
        margin="8px 0"
        onClick={() => setView({ showsCurves: !showsCurves })}
      >
        {WORDS.onsetCurvesOnThe}
      </Button>
      {loudness && (
        <Box as="p" className="muted" margin="0 0 8px">
          <span className="mono">{loudness.integrated.toFixed(1)}</span>
          {WORDS.lufsOverall} <span className="mono">{loudness.shortTerm.toFixed(1)}</span>
          {WORDS.atItsLoudestPeak} <span className="mono">{loudness.truePeak.toFixed(1)}</span>
          {WORDS.dbtp}
        </Box>
      )}
      {analysis.sections.map((section) => (
        <Flex
          key={section.start}
          className="list-row"
          role="group"
          aria-label={WORDS.section(section.label)}
          gap="6px"
          alignItems="center"
          padding="2px 6px"
        >
          <Button
            variant="quiet"
            flex="1"
            justifyContent="flex-start"
            color="text"
            padding="3px 2px"
            onClick={() => playhead.set(Math.max(0, songToPiece(music, section.start)))}
          >
            {section.label}
          </Button>
          <Span
            aria-hidden="true"
            height="5px"
            borderRadius="3px"
            background="tide"
            style={{ width: 40 * section.energy }}
          />
          <span className="mono muted">{formatClock(section.start).slice(1, 7)}</span>
          <Button
            variant="quiet"
            padding="2px 4px"
            onClick={() =>
              setView({
                loop: { from: Math.max(0, songToPiece(music, section.start)), to: songToPiece(music, section.end) },
              })
            }
          >
            {WORDS.mark}
          </Button>
        </Flex>
      ))}
      {(analysis.fills.length > 0 || analysis.silences.length > 0) && (
        <Box as="p" className="muted" margin="8px 0 0">
          {WORDS.fillSilence(analysis.fills.length, analysis.silences.length)}
        </Box>
      )}
    </>
  );
}

import { Box, Span } from '@chakra-ui/react';
import { useState } from 'react';
import { overallTempo } from '@core/time';
import { edit } from '../../store/desk-store';
import { songOf, useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { Tabs } from '../../ui/Tabs';
import { BeatsTab } from '../music/BeatsTab';
import { FactsTab } from '../music/FactsTab';
import { MarkersTab } from '../music/MarkersTab';
import { SongTab } from '../music/SongTab';
import { FileDrop } from './FileDrop';
import { Button } from '../../ui/Button';

const TABS = { beats: 'Beats', song: 'Cut', markers: 'Markers', facts: 'Heard' } as const;

/** The song: bring it in, see what was heard in it, put that right, and cut it. */
export function MusicPanel() {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const [tab, setTab] = useState<keyof typeof TABS>('beats');
  const { music, tempo } = piece;
  const song = songOf(piece);

  if (!music || !song) {
    return (
      <>
        <h2 className="title">Music</h2>
        <p className="muted">Bring in a song and its beats become the clock of the piece.</p>
        <FileDrop wanted="audio" label="Choose a song">
          <Box as="strong" color="text" fontWeight="600">
            Drop a song here
          </Box>
          <br />
          or choose a file
          <br />
          <Span fontSize="11.5px">WAV, MP3, OGG, Opus, FLAC, M4A</Span>
        </FileDrop>
        <hr className="rule" />
        <h2 className="title">Or a typed tempo</h2>
        <div className="prop">
          <span />
          <span className="name">Tempo</span>
          <NumberField
            label="Tempo"
            value={tempo.bpm}
            unit="BPM"
            step={0.5}
            min={20}
            max={400}
            width={96}
            onChange={(v, g) => edit([{ type: 'tempo.set', tempo: { ...tempo, bpm: v } }], g)}
          />
        </div>
        <div className="prop">
          <span />
          <span className="name">Beats a bar</span>
          <NumberField
            label="Beats a bar"
            value={tempo.beatsPerBar}
            min={1}
            max={16}
            decimals={0}
            onChange={(v, g) => edit([{ type: 'tempo.set', tempo: { ...tempo, beatsPerBar: Math.round(v) } }], g)}
          />
        </div>
        <div className="prop">
          <span />
          <span className="name">Bar 1 starts at</span>
          <NumberField
            label="First downbeat"
            value={tempo.firstDownbeat}
            unit="s"
            step={0.01}
            decimals={3}
            width={80}
            onChange={(v, g) => edit([{ type: 'tempo.set', tempo: { ...tempo, firstDownbeat: v } }], g)}
          />
        </div>
        <hr className="rule" />
        <MarkersTab />
      </>
    );
  }
  const bpm = overallTempo(times.grid);
  const beatsPerBar = times.grid.meters[0]?.beatsPerBar ?? 4;
  return (
    <>
      <h2 className="title">{song.name.replace(/\.\w+$/, '')}</h2>
      <Box as="p" className="muted" marginTop="2px">
        {analysis ? (
          <>
            {analysis.beats.length} beats, {analysis.hits.length} hits found in{' '}
            <span className="mono">{analysis.duration.toFixed(1)} s</span>
          </>
        ) : (
          'Being listened to …'
        )}
      </Box>
      <Tabs label="Work on the music" tabs={TABS} value={tab} onChange={setTab}>
        {tab === 'beats' && <BeatsTab />}
        {tab === 'song' && <SongTab />}
        {tab === 'markers' && <MarkersTab />}
        {tab === 'facts' && <FactsTab />}
      </Tabs>
      <hr className="rule" />
      <FileDrop wanted="audio" label="Choose another song">
        Drop another song to replace it.
        <br />
        What is pinned moves to its beats.
      </FileDrop>
      <Button
        variant="quiet"
        marginTop="10px"
        onClick={() =>
          edit([
            {
              type: 'tempo.set',
              tempo: {
                bpm: Math.round(bpm * 1000) / 1000,
                beatsPerBar,
                firstDownbeat: times.grid.beats[Math.max(0, times.grid.origin)] ?? 0,
              },
            },
            { type: 'music.set', music: null },
          ])
        }
      >
        Remove the music, keep its tempo
      </Button>
    </>
  );
}

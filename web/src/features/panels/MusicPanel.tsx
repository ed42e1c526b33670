import { songOf } from '@core/piece';
import { Box } from '@chakra-ui/react';
import { overallTempo } from '@core/time';
import { edit } from '../../store/desk-store';
import { useAnalysis, usePiece, useTimes } from '../../store/selectors';
import { NumberField } from '../../ui/NumberField';
import { Tabs } from '../../ui/Tabs';
import { BeatsTab } from '../music/BeatsTab';
import { GroupsChoice } from '../music/GroupsChoice';
import { FactsTab } from '../music/FactsTab';
import { MarkersTab } from '../music/MarkersTab';
import { SongTab } from '../music/SongTab';
import { FileDrop } from './FileDrop';
import { SONGS, SongDrop } from './SongDrop';
import { PANEL_TABS, usePanelTab } from './panel-tabs';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

/** The song: bring it in, see what was heard in it, put that right, and cut it. */
export function MusicPanel() {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useAnalysis();
  const [tab, setTab] = usePanelTab('music');
  const { music, tempo } = piece;
  const song = songOf(piece);

  if (!music || !song) {
    return (
      <>
        <h2 className="title">{WORDS.music}</h2>
        <p className="muted">{WORDS.bringInASong}</p>
        <SongDrop />
        <hr className="rule" />
        <h2 className="title">{WORDS.orATypedTempo}</h2>
        <div className="prop">
          <span />
          <span className="name">{WORDS.tempo}</span>
          <NumberField
            label={WORDS.tempo}
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
          <span className="name">{WORDS.beatsABar}</span>
          <NumberField
            label={WORDS.beatsABar}
            value={tempo.beatsPerBar}
            min={1}
            max={16}
            decimals={0}
            onChange={(v, g) => edit([{ type: 'tempo.set', tempo: { ...tempo, beatsPerBar: Math.round(v) } }], g)}
          />
        </div>
        <GroupsChoice
          label={WORDS.inGroupsOf}
          beatsPerBar={tempo.beatsPerBar}
          groups={tempo.groups}
          onChange={(groups) => edit([{ type: 'tempo.set', tempo: { ...tempo, groups } }])}
        />
        <div className="prop">
          <span />
          <span className="name">{WORDS.bar1StartsAt}</span>
          <NumberField
            label={WORDS.firstDownbeat}
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
            {WORDS.beatsHitsFoundIn(analysis.beats.length, analysis.hits.length)}
            <span className="mono">{analysis.duration.toFixed(1)} s</span>
          </>
        ) : (
          WORDS.beingListenedTo
        )}
      </Box>
      <Tabs label={WORDS.workOnTheMusic} tabs={PANEL_TABS.music} value={tab} onChange={setTab}>
        {tab === 'beats' && <BeatsTab />}
        {tab === 'song' && <SongTab />}
        {tab === 'markers' && <MarkersTab />}
        {tab === 'facts' && <FactsTab />}
      </Tabs>
      <hr className="rule" />
      <FileDrop wanted={SONGS} label={WORDS.chooseAnotherSong}>
        {WORDS.dropAnotherSongTo}
        <br />
        {WORDS.whatIsPinnedMoves}
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
                groups: [...(times.grid.meters[0]?.groups ?? [])],
                firstDownbeat: times.grid.beats[Math.max(0, times.grid.origin)] ?? 0,
              },
            },
            { type: 'music.set', music: null },
          ])
        }
      >
        {WORDS.removeTheMusicKeep}
      </Button>
    </>
  );
}

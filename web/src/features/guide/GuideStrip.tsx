import { X } from 'lucide-react';
import { useEffect, useState } from 'react';
import { playhead } from '../../platform/clock';
import { selectLayers, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { addText } from '../layers/add-layers';
import { goOnScreen } from '../desk/commands';
import { importFile } from '../panels/import-file';
import { useExports } from '../send/use-exports';
import { leaveGuide, setDone, useGuide } from './guide-store';
import { STEPS, STEP_IDS, doneSteps, isWritten, nextStep } from './steps';
import type { StepId } from './steps';
import { WORDS } from './words';

/** The song that the build lays beside the program. */
const SONG_URL = '/guide/salt-and-string.wav';

/** Brings the song of the guide in by the same way as one that is dropped. */
async function bringSong(onProgress: (stage: string | null) => void): Promise<void> {
  onProgress('…');
  const answer = await fetch(SONG_URL).catch(() => null);
  if (!answer?.ok) setView({ notice: WORDS.noSong });
  else
    await importFile(
      new File([await answer.blob()], `${WORDS.songName}.wav`, { type: 'audio/wav' }),
      ['audio'],
      (progress) => progress && onProgress(`${progress.stage} ${Math.round(progress.share * 100)} %`),
      new AbortController().signal,
    );
  onProgress(null);
}

/** Puts the desk where the step can be done: its panel open, the words in sight and selected. */
function prepare(step: StepId): void {
  const { rung } = STEPS[step];
  if (rung) setView({ rung });
  if (rung !== 'motion') return;
  const { piece, times, selectedLayers } = useDesk.getState();
  const words = piece?.layers.find(isWritten);
  if (!words || !times) return;
  if (selectedLayers.length !== 1) selectLayers([words.id]);
  goOnScreen(times.timeOf(words.start), times.timeOf(words.end));
}

/** One step of the guided first piece after another, over the desk it is done on. */
export function GuideStrip() {
  const piece = usePiece();
  const isGuided = useGuide((guide) => guide.pieceId === piece.id);
  return isGuided ? <Steps pieceId={piece.id} /> : null;
}

function Steps({ pieceId }: { pieceId: string }) {
  const done = useGuide((guide) => guide.done);
  const step = nextStep(done);
  const piece = usePiece();
  const analysis = useDesk((s) => s.analysis);
  const rung = useDesk((s) => s.rung);
  const isPlaying = useDesk((s) => s.isPlaying);
  const editingText = useDesk((s) => s.editingText);
  const { data } = useExports(pieceId, step === 'render');
  const isRendered = data?.some((job) => job.state === 'succeeded' && job.exportKind === 'mp4') ?? false;
  const [busy, setBusy] = useState<string | null>(null);

  useEffect(() => {
    const now = doneSteps(done, { piece, analysis, rung, isPlaying, editingText, isRendered });
    if (now !== done) setDone(now);
  }, [done, piece, analysis, rung, isPlaying, editingText, isRendered]);
  useEffect(() => {
    if (step) prepare(step);
  }, [step]);

  const words = step && WORDS.steps[step];
  const act = () => {
    if (step === 'song') void bringSong(setBusy);
    if (step === 'words') {
      playhead.set(0);
      setView({ editingText: addText() });
    }
  };
  return (
    <section className="guide" aria-label={WORDS.region}>
      {step && <style>{`${STEPS[step].target} { outline: 2px solid var(--lamp); outline-offset: 2px; }`}</style>}
      <ol className="guide-beats" aria-hidden="true">
        {STEP_IDS.map((id) => (
          <li key={id} data-state={done.includes(id) ? 'done' : id === step ? 'now' : 'open'} />
        ))}
      </ol>
      <p role="status" data-step={step ?? 'end'}>
        {words ? (
          <>
            <span className="muted">{WORDS.step(STEP_IDS.indexOf(step) + 1, STEP_IDS.length)}</span>{' '}
            <strong>{words.title}.</strong> {words.text}
          </>
        ) : (
          WORDS.done
        )}
      </p>
      {words?.act && (
        <Button variant="lamp" data-guide="act" disabled={busy !== null} onClick={act}>
          {busy ?? words.act}
        </Button>
      )}
      <Button variant="quiet" aria-label={WORDS.leave} onClick={leaveGuide}>
        <X size={16} />
      </Button>
    </section>
  );
}

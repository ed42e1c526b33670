import { Box, Flex, Span } from '@chakra-ui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { Download, RotateCcw, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import { EXPORT_FAMILIES, EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { playhead } from '../../platform/clock';
import { ApiError, api, call } from '../../platform/api';
import { receivedPiece } from '../../platform/received-piece';
import { replaceDocument, setView, useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { saveNow } from '../../saving/browser-session';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { PosterRow } from './PosterRow';
import { exportsKey, isActive, useExports } from './use-exports';
import { ProgressBar } from '../../ui/ProgressBar';
import { WORDS } from './words';

function minutes(seconds: number): string {
  return seconds < 60
    ? `${Math.max(1, Math.round(seconds))} s`
    : WORDS.minS(Math.floor(seconds / 60), Math.round(seconds % 60));
}

/** Renders formats to video, keeps the piece as a file, and brings earlier revisions back. */
export function SendPanel() {
  const piece = usePiece();
  const queries = useQueryClient();
  const [problem, setProblem] = useState<string | null>(null);
  const [showsRevisions, setShowsRevisions] = useState(false);
  const { data } = useExports(piece.id);
  const revisions = useQuery({
    queryKey: ['revisions', piece.id, useDesk.getState().revision],
    enabled: showsRevisions,
    queryFn: () => call(api.pieces[':id'].revisions.$get({ param: { id: piece.id } })).then((r) => r.revisions),
  });

  const attempt = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(error instanceof ApiError ? error.message : WORDS.thatDidNotWork);
    }
    await queries.invalidateQueries({ queryKey: exportsKey(piece.id) });
  };
  const [kind, setKind] = useState<ExportKindId>('mp4');
  const render = (formatIds: readonly string[]) =>
    attempt(async () => {
      await saveNow();
      if (useDesk.getState().saveState !== 'saved') throw new ApiError('UNSAVED', WORDS.theNewestEditsCould);
      const at = playhead.seconds;
      for (const formatId of formatIds)
        await call(api.jobs.exports.$post({ json: { pieceId: piece.id, formatId, kind, at } }));
    });
  const isOnItsWay = (formatId: string): boolean =>
    data?.some((j) => isActive(j.state) && j.formatId === formatId && j.exportKind === kind) ?? false;
  const idle = piece.formats.map(({ id }) => id).filter((id) => !isOnItsWay(id));
  const restore = (revision: number) =>
    attempt(async () => {
      await saveNow();
      const { piece: old } = await call(
        api.pieces[':id'].revisions[':revision'].$get({ param: { id: piece.id, revision: String(revision) } }),
      );
      // Restoring is an edit like any other: the revision list only grows, and undo leads back.
      replaceDocument(receivedPiece(old), WORDS.bringBackRevision(revision));
      setView({ notice: WORDS.revisionIsBack(revision) });
      await saveNow();
      await queries.invalidateQueries({ queryKey: ['revisions', piece.id] });
    });

  return (
    <>
      <h2 className="title">{WORDS.send}</h2>
      <Box className="prop" gridTemplateColumns="auto 1fr">
        <span className="name">{WORDS.renderAs}</span>
        <Choice
          aria-label={WORDS.kindOfFile}
          maxWidth="none"
          value={kind}
          onChange={(e) => setKind(e.target.value as ExportKindId)} // options of the table
        >
          {Object.entries(EXPORT_FAMILIES).map(([family, label]) => (
            <optgroup key={family} label={label}>
              {EXPORT_KIND_IDS.filter((id) => EXPORT_KINDS[id].family === family).map((id) => (
                <option key={id} value={id}>
                  {EXPORT_KINDS[id].label}
                </option>
              ))}
            </optgroup>
          ))}
        </Choice>
      </Box>
      <p className="muted">{EXPORT_KINDS[kind].hint}</p>
      {piece.formats
        .filter((f) => !EXPORT_KINDS[kind].isFormatless || f.id === piece.leadFormatId)
        .map((format) => (
          <Box key={format.id} className="prop" minHeight="36px" gridTemplateColumns="1fr auto">
            <span>
              {EXPORT_KINDS[kind].isFormatless ? (
                WORDS.theWholePiece
              ) : (
                <>
                  {format.name}
                  <Span className="mono muted" fontSize="12px" marginLeft="6px">
                    {format.width} × {format.height}
                  </Span>
                </>
              )}
            </span>
            <Button
              variant="soft"
              data-guide="render"
              onClick={() => void render([format.id])}
              disabled={isOnItsWay(format.id)}
            >
              {WORDS.render}
            </Button>
          </Box>
        ))}
      {piece.formats.length > 1 && !EXPORT_KINDS[kind].isFormatless && (
        <Button variant="soft" disabled={idle.length < 2} onClick={() => void render(idle)}>
          {WORDS.renderAll(idle.length)}
        </Button>
      )}
      {problem && (
        <Box as="p" role="alert" color="ember">
          {problem}
        </Box>
      )}
      <div aria-label={WORDS.exports} role="list">
        {data?.map((job) => (
          <Box
            key={job.id}
            role="listitem"
            className="list-row"
            display="block"
            cursor="default"
            data-job={job.id}
            data-state={job.state}
          >
            <Flex alignItems="center" gap="6px">
              <Span flex="1">
                {EXPORT_KINDS[job.exportKind].isFormatless
                  ? EXPORT_KINDS[job.exportKind].label
                  : (piece.formats.find((f) => f.id === job.formatId)?.name ?? job.formatId)}{' '}
                {job.exportKind !== 'mp4' && !EXPORT_KINDS[job.exportKind].isFormatless && (
                  <span className="muted">{EXPORT_KINDS[job.exportKind].label} </span>
                )}
                <Span className="muted" fontSize="12px">
                  {new Date(job.createdAt).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit' })}
                </Span>
              </Span>
              {isActive(job.state) && (
                <Button
                  variant="quiet"
                  aria-label={WORDS.cancelTheRender}
                  onClick={() => void attempt(() => call(api.jobs[':id'].cancel.$post({ param: { id: job.id } })))}
                >
                  <X size={15} />
                </Button>
              )}
              {!isActive(job.state) && (
                <Button
                  variant="quiet"
                  aria-label={job.state === 'succeeded' ? WORDS.deleteTheFile : WORDS.takeOffTheList}
                  onClick={() => void attempt(() => call(api.jobs[':id'].$delete({ param: { id: job.id } })))}
                >
                  <Trash2 size={15} />
                </Button>
              )}
              {job.state === 'succeeded' && (
                <Button asChild variant="soft">
                  <a
                    href={`/api/jobs/${job.id}/file`}
                    download
                    aria-label={WORDS.downloadThe(EXPORT_KINDS[job.exportKind].label)}
                  >
                    <Download size={15} />
                    {WORDS.download}
                  </a>
                </Button>
              )}
            </Flex>
            {isActive(job.state) && (
              <>
                <ProgressBar label={WORDS.rendering} share={job.progress} margin="5px 0 3px" />
                <Span className="muted" fontSize="12px">
                  {job.state === 'queued'
                    ? WORDS.waitingForItsTurn
                    : `${Math.round(job.progress * 100)} %${job.secondsLeft === null ? '' : WORDS.aboutLeft(minutes(job.secondsLeft))}`}
                </Span>
              </>
            )}
            {job.state === 'failed' && (
              <Span color="ember" fontSize="12px">
                {job.message}
              </Span>
            )}
            {job.state === 'canceled' && (
              <Span className="muted" fontSize="12px">
                {WORDS.cancelledNothingKept}
              </Span>
            )}
          </Box>
        ))}
      </div>
      <hr className="rule" />
      <PosterRow />
      <Button asChild variant="quiet">
        <a href={`/api/pieces/${piece.id}/file`} download>
          <Download size={15} />
          {WORDS.keepThePieceAs}
        </a>
      </Button>
      <Button variant="quiet" aria-expanded={showsRevisions} onClick={() => setShowsRevisions(!showsRevisions)}>
        <RotateCcw size={15} />
        {WORDS.earlierRevisions}
      </Button>
      {showsRevisions &&
        revisions.data?.map((r) => (
          <Box key={r.revision} className="prop" gridTemplateColumns="1fr auto">
            <Span overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
              <span className="mono muted">{r.revision}</span> {r.label}{' '}
              <Span className="muted" fontSize="11.5px">
                {new Date(r.createdAt).toLocaleTimeString()}
              </Span>
            </Span>
            <Button
              variant="quiet"
              aria-label={WORDS.bringBackRevision(r.revision)}
              onClick={() => void restore(r.revision)}
            >
              {WORDS.bringBack}
            </Button>
          </Box>
        ))}
    </>
  );
}

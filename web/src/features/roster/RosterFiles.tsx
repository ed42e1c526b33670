import { Flex, Input, Span } from '@chakra-ui/react';
import { Download } from 'lucide-react';
import { useState } from 'react';
import { EXPORT_KINDS, EXPORT_KIND_IDS } from '@core/formats';
import type { ExportKindId } from '@core/formats';
import { ROW_SCOPES, ROW_SCOPE_IDS } from '@core/roster';
import type { RowScope } from '@core/roster';
import { ApiError, api, call, saidBy } from '../../platform/api';
import { saveNow } from '../../saving/browser-session';
import { useDesk } from '../../store/desk-store';
import { usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { ProgressBar } from '../../ui/ProgressBar';
import { Tick } from '../../ui/Tick';
import { zipAddress } from './use-row-files';
import type { FileRequest, RowFile } from './use-row-files';
import { WORDS } from './words';

/** Sound alone is the same for every row. */
const KINDS = EXPORT_KIND_IDS.filter((id) => !EXPORT_KINDS[id].isFormatless);

const isOnItsWay = ({ state }: RowFile): boolean => state === 'queued' || state === 'running';

/** Renders rows as files: all at first, then those that were changed, or that a stop left. */
export function RosterFiles({
  groupId,
  request,
  onRequest,
  files,
  rows,
  kept,
  look,
}: {
  groupId: string;
  request: FileRequest;
  onRequest: (request: FileRequest) => void;
  files: readonly RowFile[];
  /** Those that are wanted. */
  rows: readonly number[];
  /** The revision of the roster once it is kept; null if it could not be. */
  kept: () => Promise<number | null>;
  look: () => Promise<void>;
}) {
  const piece = usePiece();
  const [problem, setProblem] = useState<string | null>(null);
  const [isAnyway, setAnyway] = useState(false);
  const wanted = new Set(rows);
  const of = files.filter(({ row }) => wanted.has(row));
  const ready = of.filter(({ state }) => state === 'succeeded').length;
  const underway = of.filter(isOnItsWay);
  const failed = of.filter(({ state }) => state === 'failed').length;
  const missing = rows.length * request.formatIds.length - ready - underway.length;
  const share = underway.reduce((sum, { progress }) => sum + progress, ready);
  const path = { param: { pieceId: piece.id, groupId } };

  const attempt = async (work: () => Promise<unknown>) => {
    setProblem(null);
    try {
      await work();
    } catch (error) {
      setProblem(saidBy(error, WORDS.theServerDoesNotAnswer));
    }
    await look();
  };
  const render = () =>
    attempt(async () => {
      await saveNow();
      const revision = await kept();
      if (revision === null || useDesk.getState().saveState !== 'saved') throw new ApiError('UNSAVED', WORDS.notKept);
      const { formatIds, ...rest } = request;
      const json = { ...rest, formatIds: [...formatIds], rows: [...rows], revision, isAnyway };
      await call(api.rosters[':pieceId'][':groupId'].render.$post({ ...path, json }));
    });
  const stop = () => attempt(() => call(api.rosters[':pieceId'][':groupId'].stop.$post(path)));

  return (
    <Flex gap="10px" alignItems="center" wrap="wrap" marginTop="10px" role="group" aria-label={WORDS.files}>
      <Button variant="lamp" disabled={missing <= 0} onClick={() => void render()}>
        {ready > 0 && missing > 0 ? WORDS.renderMissing(missing) : WORDS.renderFiles(Math.max(0, missing))}
      </Button>
      <Choice
        aria-label={WORDS.kindOfFile}
        value={request.kind}
        onChange={(e) => onRequest({ ...request, kind: e.target.value as ExportKindId })} // options of the table
      >
        {KINDS.map((id) => (
          <option key={id} value={id}>
            {EXPORT_KINDS[id].label}
          </option>
        ))}
      </Choice>
      <Choice
        aria-label={WORDS.whatIsShown}
        value={request.scope}
        onChange={(e) => onRequest({ ...request, scope: e.target.value as RowScope })} // options of the table
      >
        {ROW_SCOPE_IDS.map((id) => (
          <option key={id} value={id}>
            {ROW_SCOPES[id]}
          </option>
        ))}
      </Choice>
      {piece.formats.length > 1 &&
        piece.formats.map(({ id, name }) => (
          <Tick
            key={id}
            checked={request.formatIds.includes(id)}
            onChange={(isOn) =>
              onRequest({
                ...request,
                // in the order of the piece
                formatIds: piece.formats
                  .map((format) => format.id)
                  .filter((one) => (one === id ? isOn : request.formatIds.includes(one))),
              })
            }
          >
            {name}
          </Tick>
        ))}
      <span className="muted">{WORDS.named}</span>
      <Input
        aria-label={WORDS.fileNames}
        title={WORDS.fileNameHint}
        width="190px"
        value={request.pattern}
        maxLength={200}
        onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
        onChange={(e) => onRequest({ ...request, pattern: e.target.value })}
      />
      <Tick checked={isAnyway} onChange={setAnyway}>
        {WORDS.anyway}
      </Tick>
      {of.some(({ state }) => state !== 'missing') && (
        <Flex gap="8px" alignItems="center" minWidth="240px">
          {underway.length > 0 && (
            <ProgressBar label={WORDS.renderingRows} share={share / Math.max(1, of.length)} width="90px" />
          )}
          <Span role="status">{WORDS.ready(ready, of.length)}</Span>
          {failed > 0 && <Span color="ember">{WORDS.failed(failed)}</Span>}
          {underway.length > 0 && (
            <Button variant="quiet" onClick={() => void stop()}>
              {WORDS.stop}
            </Button>
          )}
          {ready > 0 && (
            <Button asChild variant="soft">
              <a href={zipAddress(piece.id, groupId, request)} download>
                <Download size={15} />
                {WORDS.allAsZip}
              </a>
            </Button>
          )}
        </Flex>
      )}
      {problem && (
        <Span role="alert" color="ember">
          {problem}
        </Span>
      )}
    </Flex>
  );
}

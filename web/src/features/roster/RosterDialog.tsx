import { Box, Dialog, Flex, Input, Textarea } from '@chakra-ui/react';
import { useCallback, useRef, useState } from 'react';
import type { GroupLayer, MadeFrom } from '@core/piece';
import type { RowProblem } from '@core/roster';
import { beginsAt, decodeTable, nameFrom, rosterRow, rowFields, setRows } from '@core/roster';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { DialogFrame } from '../../ui/DialogFrame';
import { Button } from '../../ui/Button';
import { FileButton } from '../../ui/FilePick';
import { ProgressBar } from '../../ui/ProgressBar';
import { Tick } from '../../ui/Tick';
import { bringPictures } from './bring-pictures';
import { makePieces } from './make-pieces';
import { RosterColumns } from './RosterColumns';
import { RosterFiles } from './RosterFiles';
import { RosterTable } from './RosterTable';
import { RowSide } from './RowSide';
import { useRoster } from './use-roster';
import { useRowFiles } from './use-row-files';
import type { FileRequest } from './use-row-files';
import { WORDS } from './words';

const MOST_BYTES = 40_000_000;

/** A table whose rows each make one of a group that was made from a template. */
export default function RosterDialog({
  group,
  made,
  onClose,
}: {
  group: GroupLayer;
  made: MadeFrom;
  onClose: () => void;
}) {
  const piece = usePiece();
  const analysis = useAnalysis();
  const savedRevision = useDesk((s) => s.revision);
  const { roster, change, take, values, problems, left, looked, template, kept, revision, told, undo, redo } =
    useRoster(group, made);
  const [pasted, setPasted] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const [chosen, setChosen] = useState(0);
  const [onlyGood, setOnlyGood] = useState(true);
  const [pattern, setPattern] = useState(`{${made.slots[0]?.name ?? 'row'}}, {piece}`);
  const [request, setRequest] = useState<FileRequest>({
    formatIds: [piece.leadFormatId],
    kind: 'mp4',
    scope: 'whole',
    pattern: `{row} {${made.slots[0]?.name ?? 'piece'}}`,
  });
  const { files, look } = useRowFiles(piece.id, group.id, request, `${savedRevision}/${revision}`);
  const [progress, setProgress] = useState<{ done: number; all: number } | null>(null);
  const abort = useRef<AbortController | null>(null);
  const isBad = (row: readonly RowProblem[] | undefined): boolean => row?.some(({ isNote }) => !isNote) ?? false;
  const bad = problems.filter(isBad).length;
  const noted = problems.filter((row) => row.length > 0 && !isBad(row)).length;
  const current = useRef(roster);
  current.current = roster;
  const onCell = useCallback(
    (row: number, column: number, value: string) => {
      const now = current.current;
      const rows = now.rows.map((old, i) =>
        i === row ? { ...old, cells: now.columns.map((_, c) => (c === column ? value : (old.cells[c] ?? ''))) } : old,
      );
      change({ ...now, rows }, `${row}/${column}`);
    },
    [change],
  );
  const takeOver = (text: string) => {
    const why = take(text);
    setSaid(why);
    if (why === null) setPasted('');
  };
  const openFile = (file: File) => {
    if (file.size > MOST_BYTES) return setSaid(WORDS.tooLarge);
    void file.arrayBuffer().then((bytes) => takeOver(decodeTable(new Uint8Array(bytes))));
  };
  const nameOf = (row: number) =>
    nameFrom(pattern, rowFields(roster, row, made.slots, piece.name)) || `${piece.name} ${row + 1}`;
  const wanted = values.flatMap((row, i) => (onlyGood && isBad(problems[i]) ? [] : [{ row, i }]));
  const ontoTimeline = () => {
    const { edits, set, why } = setRows(
      piece,
      group,
      wanted.map(({ row, i }) => ({
        values: row,
        begins: beginsAt(roster.rows[i]?.cells[roster.beginsColumn ?? -1] ?? '', piece.frameRate),
      })),
      analysis,
      newId,
    );
    if (!edit(edits)) return setSaid(why);
    setView({ notice: why === null ? WORDS.onTimeline(set) : WORDS.onlySome(set, why) });
    onClose();
  };
  const asPieces = async () => {
    abort.current = new AbortController();
    const rows = wanted.map(({ row, i }) => ({ values: row, name: nameOf(i) }));
    const onProgress = (done: number) => setProgress({ done, all: rows.length });
    setSaid(await makePieces(piece, group.id, analysis, rows, onProgress, abort.current.signal));
    setProgress(null);
  };
  const setOwnPiece = (pieceId: string | null) =>
    change({ ...roster, rows: roster.rows.map((row, i) => (i === chosen ? { ...row, ownPieceId: pieceId } : row)) });
  return (
    <DialogFrame label={WORDS.roster} maxW="1220px" width="97vw" onClose={onClose}>
      <Flex gap="10px" alignItems="center" wrap="wrap">
        <Dialog.Title className="title" margin="0">
          {WORDS.roster}
        </Dialog.Title>
        <span className="muted">{WORDS.intro(made.name)}</span>
        <Box flex="1" />
        <Button variant="quiet" disabled={!undo} onClick={() => undo?.()}>
          {WORDS.undo}
        </Button>
        <Button variant="quiet" disabled={!redo} onClick={() => redo?.()}>
          {WORDS.redo}
        </Button>
        <FileButton
          label={WORDS.openFileLabel}
          accept=".csv,.tsv,.txt,text/csv"
          onFiles={([file]) => file && openFile(file)}
        >
          <Button variant="soft">{WORDS.openFile}</Button>
        </FileButton>
        <FileButton
          label={WORDS.picturesLabel}
          accept="image/*,.svg,video/*"
          many
          onFiles={(many) => void bringPictures(many).then(({ wrong }) => setSaid(wrong))}
        >
          <Button variant="soft">{WORDS.pictures}</Button>
        </FileButton>
        <Button variant="quiet" onClick={onClose}>
          {WORDS.close}
        </Button>
      </Flex>
      <Flex gap="8px" alignItems="center" margin="10px 0">
        <Textarea
          aria-label={WORDS.paste}
          placeholder={WORDS.paste}
          rows={1}
          flex="1"
          value={pasted}
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          onChange={(e) => setPasted(e.target.value)}
        />
        <Button variant="soft" disabled={pasted.trim() === ''} onClick={() => takeOver(pasted)}>
          {WORDS.takeOver}
        </Button>
      </Flex>
      <RosterColumns roster={roster} slots={made.slots} left={left} onChange={change} />
      <Flex gap="18px" height="42vh">
        <Box flex="1" minWidth="0">
          <RosterTable
            roster={roster}
            slots={made.slots}
            problems={problems}
            files={files}
            chosen={chosen}
            onChoose={setChosen}
            onCell={onCell}
            onRemove={(row) => change({ ...roster, rows: roster.rows.filter((_, i) => i !== row) })}
          />
        </Box>
        <Box width="280px" flexShrink="0" overflow="auto">
          <RowSide
            groupId={group.id}
            template={template}
            row={roster.rows[chosen] ?? null}
            n={chosen + 1}
            values={values[chosen] ?? {}}
            name={nameOf(chosen)}
            onOwnPiece={setOwnPiece}
          />
          <Box marginTop="8px">{WORDS.rows(roster.rows.length)}</Box>
          <Box role="status" color={bad > 0 ? 'ember' : 'moss'}>
            {looked < roster.rows.length
              ? WORDS.looking(looked, roster.rows.length)
              : bad > 0
                ? WORDS.problems(bad)
                : WORDS.noProblems}
            {noted > 0 && (
              <Box color="lamp" fontSize="13px">
                {WORDS.notes(noted)}
              </Box>
            )}
          </Box>
          <Tick checked={onlyGood} onChange={setOnlyGood}>
            {WORDS.onlyGood}
          </Tick>
          <Button
            variant="soft"
            marginTop="8px"
            onClick={() => change({ ...roster, rows: [...roster.rows, rosterRow(roster.columns.map(() => ''))] })}
          >
            {WORDS.addRow}
          </Button>
        </Box>
      </Flex>
      <RosterFiles
        groupId={group.id}
        request={request}
        onRequest={setRequest}
        files={files}
        rows={wanted.map(({ i }) => i)}
        kept={kept}
        look={look}
      />
      <Flex gap="10px" alignItems="center" wrap="wrap" marginTop="10px">
        <Button variant="soft" disabled={wanted.length === 0} onClick={ontoTimeline}>
          {WORDS.ontoTimeline}
        </Button>
        <Button variant="soft" disabled={wanted.length === 0 || progress !== null} onClick={() => void asPieces()}>
          {WORDS.asPieces}
        </Button>
        <span className="muted">{WORDS.named}</span>
        <Input
          aria-label={WORDS.pieceNames}
          title={WORDS.fieldsHint(made.slots[0]?.name ?? 'row')}
          width="220px"
          value={pattern}
          maxLength={200}
          onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
          onChange={(e) => setPattern(e.target.value)}
        />
        {progress && (
          <Flex gap="8px" alignItems="center" minWidth="220px">
            <ProgressBar
              label={WORDS.making(progress.done, progress.all)}
              share={progress.done / Math.max(1, progress.all)}
            />
            <Button variant="quiet" onClick={() => abort.current?.abort()}>
              {WORDS.cancel}
            </Button>
          </Flex>
        )}
        {(said ?? told) && <span role="status">{said ?? told}</span>}
      </Flex>
    </DialogFrame>
  );
}

import { Box, Dialog, Flex, Input, Portal, Textarea } from '@chakra-ui/react';
import { useCallback, useRef, useState } from 'react';
import { formatOf } from '@core/piece';
import type { GroupLayer, MadeFrom } from '@core/piece';
import { decodeTable, setRows } from '@core/roster';
import { newId } from '../../platform/ids';
import { edit, setView, useDesk } from '../../store/desk-store';
import { useAnalysis, usePiece } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { FileButton } from '../../ui/FilePick';
import { ProgressBar } from '../../ui/ProgressBar';
import { Tick } from '../../ui/Tick';
import { bringPictures } from './bring-pictures';
import { TemplatePreview } from '../templates/TemplatePreview';
import { makePieces, nameFrom } from './make-pieces';
import { RosterTable } from './RosterTable';
import { useRoster } from './use-roster';
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
  const formatId = useDesk((s) => s.formatId);
  const { roster, change, take, values, problems, looked, template } = useRoster(group, made);
  const [pasted, setPasted] = useState('');
  const [said, setSaid] = useState<string | null>(null);
  const [chosen, setChosen] = useState(0);
  const [onlyGood, setOnlyGood] = useState(true);
  const [pattern, setPattern] = useState(`{${made.slots[0]?.name ?? 'row'}}, {piece}`);
  const [progress, setProgress] = useState<{ done: number; all: number } | null>(null);
  const abort = useRef<AbortController | null>(null);
  const bad = problems.filter((row) => row.length > 0).length;
  const current = useRef(roster);
  current.current = roster;
  const onCell = useCallback(
    (row: number, column: number, value: string) => {
      const now = current.current;
      const rows = now.rows.map((cells, i) =>
        i === row ? now.columns.map((_, c) => (c === column ? value : (cells[c] ?? ''))) : cells,
      );
      change({ ...now, rows });
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
  const wanted = values.flatMap((row, i) => (onlyGood && (problems[i]?.length ?? 0) > 0 ? [] : [{ row, i }]));
  const ontoTimeline = () => {
    const { edits, set, why } = setRows(
      piece,
      group,
      wanted.map(({ row }) => row),
      analysis,
      newId,
    );
    if (!edit(edits)) return setSaid(why);
    setView({ notice: why === null ? WORDS.onTimeline(set) : WORDS.onlySome(set, why) });
    onClose();
  };
  const asPieces = async () => {
    abort.current = new AbortController();
    const rows = wanted.map(({ row, i }) => {
      const cells = roster.rows[i] ?? [];
      const fields = Object.fromEntries(
        made.slots.map((slot) => [slot.name, cells[roster.mapping[slot.id] ?? -1] ?? '']),
      );
      return { values: row, name: nameFrom(pattern, fields, i + 1, piece) };
    });
    const told = await makePieces(
      piece,
      group,
      rows,
      (done) => setProgress({ done, all: rows.length }),
      abort.current.signal,
    );
    setProgress(null);
    setSaid(told);
  };
  return (
    <Dialog.Root defaultOpen onOpenChange={({ open }) => !open && onClose()}>
      <Portal>
        <Dialog.Backdrop />
        <Dialog.Positioner>
          <Dialog.Content maxW="1180px" width="96vw" aria-label={WORDS.roster}>
            <Dialog.Body p="5">
              <Flex gap="10px" alignItems="center" wrap="wrap">
                <Dialog.Title className="title" margin="0">
                  {WORDS.roster}
                </Dialog.Title>
                <span className="muted">{WORDS.intro(made.name)}</span>
                <Box flex="1" />
                <FileButton
                  label={WORDS.openFileLabel}
                  accept=".csv,.tsv,.txt,text/csv"
                  onFiles={([file]) => file && openFile(file)}
                >
                  <Button variant="soft">{WORDS.openFile}</Button>
                </FileButton>
                <FileButton
                  label={WORDS.picturesLabel}
                  accept="image/*"
                  many
                  onFiles={(files) => void bringPictures(files).then(setSaid)}
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
              <Flex gap="12px" wrap="wrap" marginBottom="8px" role="group" aria-label={WORDS.roster}>
                {made.slots.map((slot) => (
                  <Flex key={slot.id} gap="6px" alignItems="center">
                    <span className="muted">{slot.name}</span>
                    <Choice
                      aria-label={WORDS.columnOf(slot.name)}
                      value={roster.mapping[slot.id] ?? ''}
                      onChange={(e) => {
                        const { [slot.id]: _old, ...others } = roster.mapping;
                        const mapping =
                          e.target.value === '' ? others : { ...others, [slot.id]: Number(e.target.value) };
                        change({ ...roster, mapping });
                      }}
                    >
                      <option value="">{WORDS.noColumn}</option>
                      {roster.columns.map((name, i) => (
                        <option key={name} value={i}>
                          {name}
                        </option>
                      ))}
                    </Choice>
                  </Flex>
                ))}
              </Flex>
              <Flex gap="18px" height="46vh">
                <Box flex="1" minWidth="0">
                  <RosterTable
                    roster={roster}
                    slots={made.slots}
                    problems={problems}
                    chosen={chosen}
                    onChoose={setChosen}
                    onCell={onCell}
                    onRemove={(row) => change({ ...roster, rows: roster.rows.filter((_, i) => i !== row) })}
                  />
                </Box>
                <Box width="280px" flexShrink="0" role="group" aria-label={WORDS.preview}>
                  <TemplatePreview
                    template={template}
                    format={formatOf(piece, formatId)}
                    wearer={piece}
                    values={values[chosen] ?? {}}
                    isWatched
                    height={158}
                  />
                  <Box marginTop="8px">{WORDS.rows(roster.rows.length)}</Box>
                  <Box role="status" color={bad > 0 ? 'ember' : 'moss'}>
                    {looked < roster.rows.length
                      ? WORDS.looking(looked, roster.rows.length)
                      : bad > 0
                        ? WORDS.problems(bad)
                        : WORDS.noProblems}
                  </Box>
                  <Button
                    variant="soft"
                    marginTop="10px"
                    onClick={() => change({ ...roster, rows: [...roster.rows, roster.columns.map(() => '')] })}
                  >
                    {WORDS.addRow}
                  </Button>
                </Box>
              </Flex>
              <Flex gap="10px" alignItems="center" wrap="wrap" marginTop="12px">
                <Button variant="lamp" disabled={wanted.length === 0} onClick={ontoTimeline}>
                  {WORDS.ontoTimeline}
                </Button>
                <Button
                  variant="soft"
                  disabled={wanted.length === 0 || progress !== null}
                  onClick={() => void asPieces()}
                >
                  {WORDS.asPieces}
                </Button>
                <Input
                  aria-label={WORDS.fileName}
                  title={WORDS.fileNameHint(made.slots[0]?.name ?? 'row')}
                  width="220px"
                  value={pattern}
                  maxLength={200}
                  onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
                  onChange={(e) => setPattern(e.target.value)}
                />
                <Tick checked={onlyGood} onChange={setOnlyGood}>
                  {WORDS.onlyGood}
                </Tick>
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
                {said && <span role="status">{said}</span>}
              </Flex>
            </Dialog.Body>
          </Dialog.Content>
        </Dialog.Positioner>
      </Portal>
    </Dialog.Root>
  );
}

import { Box, Input, Span } from '@chakra-ui/react';
import { SlidersHorizontal } from 'lucide-react';
import { useState } from 'react';
import {
  EXPORT_FAMILIES,
  EXPORT_KINDS,
  EXPORT_KIND_IDS,
  EXPORT_PLACES,
  EXPORT_PLACE_IDS,
  againstPlace,
  bytesByEarlier,
  exportRefusal,
  exportWarning,
  estimatedBytes,
} from '@core/formats';
import type { ExportKindId, ExportPlaceId } from '@core/formats';
import { spanOf } from '@core/piece';
import { framesPerSecond } from '@core/time';
import { ApiError, api, call } from '../../platform/api';
import { playhead } from '../../platform/clock';
import { saveNow } from '../../saving/browser-session';
import { useDesk } from '../../store/desk-store';
import { usePiece, useTimes } from '../../store/selectors';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Tick } from '../../ui/Tick';
import { earlierRender } from './earlier-render';
import { FieldRow } from './FieldRow';
import { megabytesText } from './megabytes-text';
import { choose, choosePlace, fileNameOf, partsOf, settingsNow, useRenderChoice } from './render-choice';
import type { PartChoice } from './render-choice';
import { SettingsFields } from './SettingsFields';
import { isActive } from './use-exports';
import type { ExportJob } from './use-exports';
import { WORDS } from './words';

/** What of the piece: the whole, a part, every part of a sort, or what is selected alone. */
function PartFields({ parts, isMoment }: { parts: readonly PartChoice[]; isMoment: boolean }) {
  const { part, isSelectionAlone } = useRenderChoice();
  const selected = useDesk((s) => s.selectedLayers);
  const groups = [...new Set(parts.map((one) => one.group))];
  const option = (one: PartChoice) => (
    <option key={one.id} value={one.id}>
      {one.label}
    </option>
  );
  return (
    <>
      {!isMoment && parts.length > 1 && (
        <FieldRow name={WORDS.part}>
          <Choice
            aria-label={WORDS.part}
            maxWidth="none"
            width="100%"
            value={parts.some((one) => one.id === part) ? part : 'whole'}
            onChange={(e) => choose({ part: e.target.value })}
          >
            {groups.map((group) =>
              group === '' ? (
                parts.filter((one) => one.group === '').map(option)
              ) : (
                <optgroup key={group} label={group}>
                  {parts.filter((one) => one.group === group).map(option)}
                </optgroup>
              ),
            )}
          </Choice>
        </FieldRow>
      )}
      {selected.length > 0 && (
        <Tick checked={isSelectionAlone} onChange={(isOn) => choose({ isSelectionAlone: isOn })}>
          {WORDS.selectionAlone(selected.length)}
        </Tick>
      )}
    </>
  );
}

/** Puts renders into the queue: of what kind, for which place, how, and of which part of the piece. */
export function RenderForm({
  jobs,
  attempt,
}: {
  jobs: readonly ExportJob[];
  attempt: (work: () => Promise<unknown>) => Promise<void>;
}) {
  const piece = usePiece();
  const times = useTimes();
  const analysis = useDesk((s) => s.analysis);
  const loop = useDesk((s) => s.loop);
  const selected = useDesk((s) => s.selectedLayers);
  const choice = useRenderChoice();
  const [showsSettings, setShowsSettings] = useState(false);
  const { kind, place, pattern } = choice;
  const { hint, isFormatless, isMoment, settings: has } = EXPORT_KINDS[kind];
  const parts = partsOf(piece, times, analysis, loop);
  const part = parts.find((one) => one.id === choice.part) ?? parts[0]!; // the whole is always there
  const excerpts = isMoment ? [null] : part.excerpts;
  const settings = settingsNow(choice);
  const layerIds = choice.isSelectionAlone && selected.length > 0 ? [...selected] : null;
  const formats = piece.formats.filter((f) => !isFormatless || f.id === piece.leadFormatId);

  const render = (formatIds: readonly string[]) =>
    attempt(async () => {
      await saveNow();
      if (useDesk.getState().saveState !== 'saved') throw new ApiError('UNSAVED', WORDS.notSaved);
      const at = playhead.seconds;
      for (const formatId of formatIds)
        for (const excerpt of makeable) {
          const format = piece.formats.find((f) => f.id === formatId)?.name ?? '';
          const fileName = fileNameOf(pattern, piece, format, excerpt?.name ?? '', kind);
          const range = excerpt ? { from: excerpt.from, to: excerpt.to } : null;
          const json = { pieceId: piece.id, formatId, kind, at, settings, layerIds, excerpt: range, fileName };
          await call(api.jobs.exports.$post({ json }));
        }
    });
  const sizeOf = (format: (typeof formats)[number]) => {
    const spans = excerpts.map((excerpt) => spanOf(excerpt, times.end, piece.frameRate).count);
    const earlier = isMoment ? null : earlierRender(jobs, { kind, settings, layerIds, formatId: format.id });
    const bytes = spans.map((frames) => {
      const size = { ...format, frames, frameRate: piece.frameRate };
      return earlier ? bytesByEarlier(earlier, size) : estimatedBytes(kind, size, settings);
    });
    const seconds = Math.max(...spans) / framesPerSecond(piece.frameRate);
    const total = bytes.reduce((sum, b) => sum + b, 0);
    return { ...format, seconds, bytes: Math.max(...bytes), total, isKnown: earlier !== null };
  };
  const isOnItsWay = (formatId: string): boolean =>
    excerpts.length === 1 &&
    jobs.some(
      (j) =>
        isActive(j.state) &&
        j.formatId === formatId &&
        j.exportKind === kind &&
        JSON.stringify([
          j.what?.settings,
          j.what?.layerIds,
          j.what?.excerpt?.from ?? null,
          j.what?.excerpt?.to ?? null,
        ]) === JSON.stringify([settings, layerIds, excerpts[0]?.from ?? null, excerpts[0]?.to ?? null]),
    );
  // Of several parts, those that can be made are made.
  const refusals = excerpts.map((excerpt) => exportRefusal(kind, piece, times, excerpt));
  const makeable = excerpts.filter((_, i) => refusals[i] === null);
  const refusal = makeable.length === 0 ? (refusals[0] ?? null) : null;
  const idle = formats.map(({ id }) => id).filter((id) => !isOnItsWay(id));

  return (
    <>
      <FieldRow name={WORDS.place}>
        <Choice
          aria-label={WORDS.place}
          maxWidth="none"
          width="100%"
          value={place ?? ''}
          onChange={(e) => choosePlace((e.target.value || null) as ExportPlaceId | null)} // options of the table
        >
          <option value="">{WORDS.anywhere}</option>
          {EXPORT_PLACE_IDS.map((id) => (
            <option key={id} value={id}>
              {EXPORT_PLACES[id].label}
            </option>
          ))}
        </Choice>
      </FieldRow>
      <FieldRow name={WORDS.renderAs}>
        <Choice
          aria-label={WORDS.kindOfFile}
          maxWidth="none"
          width="100%"
          value={kind}
          onChange={(e) => choose({ kind: e.target.value as ExportKindId, place: null })} // options of the table
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
      </FieldRow>
      <p className="muted">{place ? EXPORT_PLACES[place].hint : hint}</p>
      <PartFields parts={parts} isMoment={isMoment} />
      {has.length > 0 && (
        <Button variant="quiet" aria-expanded={showsSettings} onClick={() => setShowsSettings(!showsSettings)}>
          <SlidersHorizontal size={15} />
          {WORDS.settings}
        </Button>
      )}
      {showsSettings && (
        <>
          <SettingsFields />
          <FieldRow name={WORDS.named}>
            <Input
              aria-label={WORDS.fileNames}
              width="100%"
              minWidth={0}
              title={WORDS.fileNameHint}
              value={pattern}
              maxLength={200}
              onKeyDown={(e) => e.key !== 'Escape' && e.stopPropagation()}
              onChange={(e) => choose({ pattern: e.target.value })}
            />
          </FieldRow>
        </>
      )}
      {formats.map((format) => {
        const file = sizeOf(format);
        const problems = place ? againstPlace(EXPORT_PLACES[place], file) : [];
        return (
          <Box key={format.id}>
            <Box className="prop" minHeight="44px" gridTemplateColumns="1fr auto">
              <span>
                {isFormatless ? WORDS.wholePiece : format.name}
                <Span className="mono muted" display="block" fontSize="12px">
                  {!isFormatless && `${format.width} × ${format.height}, `}
                  {(file.isKnown ? WORDS.about : WORDS.upTo)(megabytesText(file.total))}
                </Span>
              </span>
              <Button
                variant="soft"
                data-guide="render"
                aria-label={
                  excerpts.length > 1
                    ? undefined
                    : WORDS.renderFormat(isFormatless ? EXPORT_KINDS[kind].label : format.name)
                }
                onClick={() => void render([format.id])}
                disabled={isOnItsWay(format.id) || refusal !== null}
                title={refusal ?? undefined}
              >
                {excerpts.length > 1 ? WORDS.renderAll(makeable.length) : WORDS.render}
              </Button>
            </Box>
            {[refusal, exportWarning(kind, piece), ...problems]
              .flatMap((one) => one ?? [])
              .map((problem) => (
                <Box key={problem} as="p" color="ember" fontSize="12px">
                  {problem}
                </Box>
              ))}
          </Box>
        );
      })}
      {piece.formats.length > 1 && !isFormatless && (
        <Button
          variant="soft"
          margin="6px 0"
          disabled={idle.length < 2 || refusal !== null}
          onClick={() => void render(idle)}
        >
          {WORDS.renderAll(idle.length * makeable.length)}
        </Button>
      )}
    </>
  );
}

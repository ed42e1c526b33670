import { Box, Flex, Input } from '@chakra-ui/react';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useRef, useState } from 'react';
import type { ReactNode } from 'react';
import { BLEND_MODES, GRADIENTS, LAYER_KINDS, familyOf, hasProperty, trackLabel } from '@core/piece';
import { PATH_OPERATIONS } from '@core/geometry';
import type { PathOperation } from '@core/geometry';
import type { BlendMode, Layer, PropertyId } from '@core/piece';
import { beatToBar, formatBarBeat, secondsToBeat } from '@core/time';
import type { Seconds } from '@core/time';
import { edit, useDesk } from '../../store/desk-store';
import { usePiece, useSelectedLayer, useTimes } from '../../store/selectors';
import { usePlayheadTick } from '../../store/use-playhead-tick';
import { Button } from '../../ui/Button';
import { Choice } from '../../ui/Choice';
import { Empty } from '../../ui/Empty';
import { groupSelection, ungroupSelection } from '../desk/group-commands';
import { goOnScreen, goToKey, isOnScreen } from '../desk/commands';
import { onDesk } from '../layers/layer-kinds';
import { SlotSection } from '../templates/SlotSection';
import { axisLabels } from '../type/TypeSection';
import { useAxes } from '../type/families';
import { AlignRow } from './AlignRow';
import { DetailSection } from './DetailSection';
import { EasingEditor } from './EasingEditor';
import { FormatSection } from './FormatSection';
import { MotionLinks } from './MotionLinks';
import { PropertyRow } from './PropertyRow';
import { SECTION_TITLES, sectionOf } from './sections';
import type { SectionId } from './sections';
import { shownProperties } from './shown-properties';
import { useRowSearch } from './use-row-search';
import { WORDS } from './words';

/** A layer that is not on screen at the playhead looks as if nothing were chosen: this says so and leads to it. */
function AwayNote({ from, to }: { from: Seconds; to: Seconds }) {
  if (isOnScreen(from, to)) return null;
  return (
    <div className="away">
      {WORDS.notOnScreenHere}
      <Button variant="quiet" onClick={() => goOnScreen(from, to)}>
        {WORDS.goToIt}
      </Button>
    </div>
  );
}

/** Fill type of text and shapes. */
function FillTypeRow({ layer }: { layer: Layer }) {
  if (!('gradient' in layer.content)) return null;
  return (
    <div className="prop">
      <span />
      <span className="name">{WORDS.filled}</span>
      <Choice
        aria-label={WORDS.kindOfFill}
        value={layer.content.gradient}
        onChange={(e) => edit([{ type: 'layer.setContent', id: layer.id, content: { gradient: e.target.value } }])}
      >
        {GRADIENTS.map((g) => (
          <option key={g} value={g}>
            {g === 'none' ? WORDS.evenly : WORDS.gradient(g)}
          </option>
        ))}
      </Choice>
    </div>
  );
}

function BlendRow({ layers }: { layers: readonly Layer[] }) {
  const [first] = layers;
  const isMixed = layers.some(({ blend }) => blend !== first?.blend);
  return (
    <div className="prop">
      <span />
      <span className="name">{WORDS.blend}</span>
      <Choice
        aria-label={WORDS.blendMode}
        value={isMixed ? '' : (first?.blend ?? 'normal')}
        onChange={(e) =>
          edit([{ type: 'layer.setBlend', ids: layers.map(({ id }) => id), blend: e.target.value as BlendMode }])
        }
      >
        {isMixed && <option value="">{WORDS.mixedChoice}</option>}
        {Object.entries(BLEND_MODES).map(([id, mode]) => (
          <option key={id} value={id}>
            {mode.label}
          </option>
        ))}
      </Choice>
    </div>
  );
}

/** Keyframes of the selected layer: from one to the next, and the easing of those that are selected. */
function KeyframeFields({ layer }: { layer: Layer }) {
  const selectedKeys = useDesk((s) => s.selectedKeys);
  return (
    <>
      <Flex gap="6px">
        <Button variant="quiet" aria-label={WORDS.toTheKeyframeBefore} onClick={() => goToKey(-1)}>
          <ChevronLeft size={16} />
        </Button>
        <Button variant="quiet" aria-label={WORDS.toTheNextKeyframe} onClick={() => goToKey(1)}>
          <ChevronRight size={16} />
        </Button>
      </Flex>
      {selectedKeys.length > 0 ? (
        <EasingEditor />
      ) : (
        <Box as="p" className="muted" margin="6px 0">
          {WORDS.theStarBesideA}
        </Box>
      )}
      {selectedKeys.length === 1 && (
        <Box as="p" className="muted" fontSize="12px">
          {trackLabel(layer, selectedKeys[0]!.property)}
        </Box>
      )}
    </>
  );
}

/** Name, kind and time of the selection, and what is done to it as a whole. */
function SelectionHead({ layers }: { layers: readonly Layer[] }) {
  const times = useTimes();
  const [layer] = layers;
  const count = layers.length;
  if (!layer) return null;
  const bar = (seconds: number) => formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, seconds)));
  const starts = layers.map((one) => times.timeOf(one.start));
  const ends = layers.map((one) => times.timeOf(one.end));
  const kinds = [...new Set(layers.map(({ kind }) => LAYER_KINDS[kind].label.toLowerCase()))];
  return (
    <>
      <Box as="h2" className="title" overflow="hidden" textOverflow="ellipsis" whiteSpace="nowrap">
        {count > 1 ? WORDS.layers(count) : layer.name}
      </Box>
      <Box className="muted" fontSize="12px" marginBottom="8px">
        {WORDS.barsTo(
          WORDS.severalKinds(kinds),
          bar(Math.min(...starts)),
          bar(Math.max(...ends)),
          layers.every(({ locked }) => locked) ? WORDS.locked : '',
        )}
      </Box>
      <AwayNote from={Math.min(...starts)} to={Math.max(...ends)} />
      {(count > 1 || layer.kind === 'group') && (
        <Flex gap="6px" marginBottom="8px">
          {count > 1 && (
            <Button variant="soft" onClick={() => groupSelection()}>
              {WORDS.group}
            </Button>
          )}
          {count > 1 && (
            <Choice
              aria-label={WORDS.makeOneShape}
              value=""
              onChange={(e) => e.target.value && groupSelection(e.target.value as PathOperation)} // options of the table
            >
              <option value="">{WORDS.makeOneShape} …</option>
              {Object.entries(PATH_OPERATIONS).map(([id, { label }]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          )}
          {layer.kind === 'group' && (
            <Button variant="soft" onClick={ungroupSelection} disabled={layer.locked}>
              {WORDS.ungroup}
            </Button>
          )}
        </Flex>
      )}
    </>
  );
}

function NothingSelected() {
  return (
    <aside className="details" aria-label={WORDS.details}>
      <Empty title={WORDS.nothingSelected}>
        <p>{WORDS.clickSomethingOnThe}</p>
        <p>
          {WORDS.press}
          <kbd>T</kbd>
          {WORDS.forNewWords}
          <kbd>{WORDS.space}</kbd>
          {WORDS.toPlay}
        </p>
      </Empty>
    </aside>
  );
}

/** What the selection has, in sections that fold; the most used first. */
export function Details() {
  usePlayheadTick();
  const piece = usePiece();
  const layer = useSelectedLayer();
  const selectedIds = useDesk((s) => s.selectedLayers);
  const hasKeys = useDesk((s) => s.selectedKeys.length > 0);
  const [search, setSearch] = useState('');
  const flow = useRef<HTMLDivElement>(null);
  useRowSearch(flow, search);
  const named = axisLabels(useAxes(layer?.kind === 'text' ? familyOf(piece.wardrobe, layer.content.family) : ''));
  if (!layer) return <NothingSelected />;

  const others = piece.layers.filter(({ id }) => id !== layer.id && selectedIds.includes(id));
  const layers = [layer, ...others];
  const isOneKind = others.every(({ kind }) => kind === layer.kind);
  // Of several kinds only what all of them have can be set together.
  const properties = shownProperties(layer, named).filter((p) => others.every((one) => hasProperty(one.kind, p)));
  const rows = (section: SectionId) =>
    properties
      .filter((property) => sectionOf(property) === section)
      .map((property) => (
        <PropertyRow
          key={property}
          layer={layer}
          others={others}
          property={property}
          label={(named as Partial<Record<PropertyId, string | null>>)[property]}
        />
      ));
  const { above = [], below = [] } = isOneKind ? onDesk(layer) : {};
  const isSearching = search.trim() !== '';
  const section = (id: SectionId, title: string, children: ReactNode) => (
    <DetailSection id={id} title={title} isSearching={isSearching}>
      {children}
    </DetailSection>
  );
  const keyframes = section('keyframes', SECTION_TITLES.keyframes, <KeyframeFields layer={layer} />);
  const ownRows = rows('own');
  const paintRows = rows('paint');
  return (
    <aside className="details" aria-label={WORDS.details} data-searching={isSearching || undefined}>
      <SelectionHead layers={layers} />
      <AlignRow count={layers.length} disabled={layer.locked} />
      <Input
        className="detail-search"
        aria-label={WORDS.searchDetails}
        placeholder={WORDS.searchDetails}
        value={search}
        maxLength={60}
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') setSearch('');
        }}
        onChange={(e) => setSearch(e.target.value)}
      />
      <div className="flow" ref={flow}>
        {hasKeys && keyframes}
        {(above.length > 0 || ownRows.length > 0) &&
          section(
            'own',
            LAYER_KINDS[layer.kind].label,
            <>
              {above.map((Section, i) => (
                <Section key={i} layer={layer} />
              ))}
              {ownRows}
            </>,
          )}
        {section('transform', SECTION_TITLES.transform, rows('transform'))}
        {paintRows.length > 0 &&
          section(
            'paint',
            SECTION_TITLES.paint,
            <>
              {paintRows}
              {isOneKind && <FillTypeRow layer={layer} />}
            </>,
          )}
        {section(
          'compositing',
          SECTION_TITLES.compositing,
          <>
            {rows('compositing')}
            <BlendRow layers={layers} />
          </>,
        )}
        {below.length > 0 &&
          section(
            'more',
            SECTION_TITLES.more,
            below.map((Section, i) => <Section key={i} layer={layer} />),
          )}
        {section('motion', SECTION_TITLES.motion, <MotionLinks layer={layer} />)}
        {section(
          'frames',
          SECTION_TITLES.frames,
          <>
            <SlotSection layer={layer} />
            <FormatSection layer={layer} />
          </>,
        )}
        {!hasKeys && keyframes}
      </div>
    </aside>
  );
}

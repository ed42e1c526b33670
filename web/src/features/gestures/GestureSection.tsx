import { Box, Flex, Input, Span } from '@chakra-ui/react';
import { useState } from 'react';
import {
  GESTURE_IDS,
  GESTURE_ROLES,
  GESTURES,
  LANDINGS,
  STAGGER_ORDERS,
  UNIT_KINDS,
  gestureDefinition,
} from '@core/motion';
import type { GestureRole, GestureUse, Landing, StaggerOrder, UnitKind } from '@core/motion';
import { tracksOf, trackOf, familyOf } from '@core/piece';
import type { Layer } from '@core/piece';
import { beatToBar, formatBarBeat, secondsToBeat } from '@core/time';
import { edit } from '../../store/desk-store';
import { usePiece, useSelectedLayer, useTimes } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { OptionGrid } from '../../ui/OptionGrid';
import { Tabs } from '../../ui/Tabs';
import { momentAtPlayhead } from '../desk/commands';
import {
  changeGesture,
  gestureName,
  giveGesture,
  keepAsGesture,
  mirrorEntrance,
  openGesture,
} from './gesture-commands';
import { GesturePreview } from './GesturePreview';
import { PointsEditor } from './PointsEditor';
import { Choice } from '../../ui/Choice';
import { Button } from '../../ui/Button';
import { WORDS } from './words';

const ROLES = { entrance: WORDS.entrance, accent: WORDS.accent, exit: WORDS.exit } as const satisfies Record<
  GestureRole,
  string
>;

/** Ready-made movement of the selected layer: what it has, and what there is to choose from. */
export function GestureSection() {
  const layer = useSelectedLayer();
  const [role, setRole] = useState<GestureRole>('entrance');
  if (!layer) return <p className="muted">{WORDS.selectALayerTo}</p>;
  const uses = layer.gestures.filter((g) => g.role === role);
  return (
    <section aria-label={WORDS.gestures}>
      <Tabs label={WORDS.whenItMoves} tabs={ROLES} value={role} onChange={setRole}>
        {uses.map((use) => (
          <UseCard key={use.id} layer={layer} use={use} />
        ))}
        {role === 'exit' && layer.gestures.some((g) => g.role === 'entrance') && (
          <Button variant="soft" marginBottom="8px" onClick={() => mirrorEntrance(layer)}>
            {WORDS.asItCameIn}
          </Button>
        )}
        <Chooser layer={layer} role={role} chosen={uses.map((u) => u.gesture)} />
        <KeepOwn layer={layer} role={role} />
      </Tabs>
    </section>
  );
}

function Chooser({ layer, role, chosen }: { layer: Layer; role: GestureRole; chosen: readonly string[] }) {
  const piece = usePiece();
  const [search, setSearch] = useState('');
  const words = layer.kind === 'text' ? layer.content.text : layer.name;
  const family = layer.kind === 'text' ? familyOf(piece.wardrobe, layer.content.family) : 'bricolage-grotesque';
  const weight = Number(trackOf(layer, 'weight')?.value ?? 600);
  const fits = (label: string, feel: string) => `${label} ${feel}`.toLowerCase().includes(search.toLowerCase());
  const shipped = GESTURE_IDS.filter(
    (id) =>
      (GESTURES[id].roles as readonly GestureRole[]).includes(role) && fits(GESTURES[id].label, GESTURES[id].feel),
  );
  const own = piece.gestures.filter((g) => g.role === role && fits(g.name, 'own'));
  return (
    <>
      <Input
        aria-label={WORDS.searchGestures}
        placeholder={WORDS.nameOrFeelSoft}
        value={search}
        width="100%"
        marginBottom="8px"
        onKeyDown={(e) => e.stopPropagation()}
        onChange={(e) => setSearch(e.target.value)}
      />
      <OptionGrid
        label={WORDS.gesturesValue(GESTURE_ROLES[role])}
        columns={2}
        display="grid"
        gridTemplateColumns="1fr 1fr"
        gap="6px"
      >
        {[
          ...own.map((g) => ({ id: g.id, label: g.name, feel: WORDS.yourOwn, own: g })),
          ...shipped.map((id) => ({ id: id, label: GESTURES[id].label, feel: GESTURES[id].feel, own: null })),
        ].map((g) => (
          <Button
            variant="bare"
            key={g.id}
            role="option"
            aria-selected={chosen.includes(g.id)}
            aria-label={`${g.label}: ${g.feel}`}
            title={g.feel}
            disabled={layer.locked}
            onClick={() => giveGesture(g.id, role)}
            background="none"
            border="0"
            padding="2px"
            borderRadius="9px"
            cursor="pointer"
            textAlign="left"
            boxShadow={chosen.includes(g.id) ? 'inset 0 0 0 1.5px var(--lamp)' : undefined}
            minWidth="0"
          >
            <GesturePreview
              gesture={g.id}
              role={role}
              words={words}
              family={family}
              weight={weight}
              own={g.own}
              media={piece.media}
            />
            <Span fontSize="12px" padding="1px 3px" display="block" color={chosen.includes(g.id) ? 'lamp' : 'muted'}>
              {g.label}
            </Span>
          </Button>
        ))}
      </OptionGrid>
    </>
  );
}

function Row({ name, children }: { name: string; children: React.ReactNode }) {
  return (
    <div className="prop">
      <span />
      <span className="name">{name}</span>
      <Span display="flex" gap="4px" alignItems="center">
        {children}
      </Span>
    </div>
  );
}

/** How one gesture runs: when, how long, through what, and its own few parameters. */
function UseCard({ layer, use }: { layer: Layer; use: GestureUse }) {
  const piece = usePiece();
  const times = useTimes();
  const definition = gestureDefinition(use.gesture);
  const set = (change: Partial<GestureUse>, gesture: string | null = null) =>
    changeGesture(layer, use, change, gesture);
  const { stagger } = use;
  const pinned = use.at;
  return (
    <Box
      background="surface"
      borderRadius="10px"
      padding="8px 10px"
      marginBottom="8px"
      role="group"
      aria-label={WORDS.gesture(gestureName(use.gesture))}
    >
      <Flex alignItems="center">
        <Box as="strong" flex="1" fontWeight="600">
          {gestureName(use.gesture)}
        </Box>
        <Button variant="quiet" onClick={() => openGesture(layer, use)} title={WORDS.turnItIntoKeyframes}>
          {WORDS.openUp}
        </Button>
        <Button
          variant="quiet"
          aria-label={WORDS.takeAway(gestureName(use.gesture))}
          onClick={() => edit([{ type: 'gesture.remove', layerId: layer.id, ids: [use.id] }])}
        >
          ×
        </Button>
      </Flex>
      {use.duration.unit !== 'stay' && (
        <Row name={WORDS.takes}>
          <NumberField
            label={WORDS.takes}
            value={use.duration.value}
            min={0.05}
            max={600}
            step={0.05}
            decimals={2}
            width={52}
            onChange={(value, g) => set({ duration: { ...use.duration, value } }, g)}
          />
          <Choice
            aria-label={WORDS.countedIn}
            padding="3px 4px"
            value={use.duration.unit}
            onChange={(e) => set({ duration: { ...use.duration, unit: e.target.value as 'beats' | 'seconds' } })}
          >
            <option value="beats">{WORDS.beats}</option>
            <option value="seconds">{WORDS.seconds}</option>
          </Choice>
        </Row>
      )}
      {use.role === 'accent' && use.duration.unit !== 'stay' && (
        <Row name={WORDS.againEvery}>
          <NumberField
            label={WORDS.againEvery}
            value={use.every ?? 0}
            min={0}
            max={64}
            step={0.05}
            decimals={2}
            width={52}
            onChange={(v, g) => set({ every: v < 0.125 ? null : v }, g)}
          />
          <span className="muted">{use.every === null ? 'once' : 'beats'}</span>
        </Row>
      )}
      {layer.kind === 'text' && definition?.does !== 'counts' && (
        <Row name={WORDS.moves}>
          <Choice
            aria-label={WORDS.moves}
            padding="3px 4px"
            value={use.unit}
            onChange={(e) => set({ unit: e.target.value as UnitKind })}
          >
            {Object.entries(UNIT_KINDS).map(([id, label]) => (
              <option key={id} value={id}>
                {label}
              </option>
            ))}
          </Choice>
        </Row>
      )}
      {use.unit !== 'whole' && (
        <>
          <Row name={WORDS.order}>
            <Choice
              aria-label={WORDS.orderOfTheStagger}
              padding="3px 4px"
              maxWidth="124px"
              value={stagger.order}
              onChange={(e) => set({ stagger: { ...stagger, order: e.target.value as StaggerOrder } })}
            >
              {Object.entries(STAGGER_ORDERS).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
          </Row>
          {stagger.order === 'random' && (
            <Row name={WORDS.anotherChance}>
              <NumberField
                label={WORDS.seed}
                value={stagger.seed}
                min={0}
                max={9999}
                decimals={0}
                width={52}
                onChange={(seed, g) => set({ stagger: { ...stagger, seed: Math.round(seed) } }, g)}
              />
            </Row>
          )}
          {!stagger.rhythm && (
            <Row name={WORDS.overlap}>
              <NumberField
                label={WORDS.overlap}
                value={stagger.overlap * 100}
                unit="%"
                min={0}
                max={100}
                width={62}
                onChange={(v, g) => set({ stagger: { ...stagger, overlap: v / 100 } }, g)}
              />
            </Row>
          )}
          <Row name={WORDS.onTheBeats}>
            <Choice
              aria-label={WORDS.staggerOnTheBeats}
              padding="3px 4px"
              maxWidth="124px"
              value={stagger.rhythm ? String(stagger.rhythm.step) : ''}
              onChange={(e) =>
                set({
                  stagger: {
                    ...stagger,
                    rhythm: e.target.value
                      ? { pattern: stagger.rhythm?.pattern ?? 'x', step: Number(e.target.value) }
                      : null,
                  },
                })
              }
            >
              <option value="">{WORDS.noEvenly}</option>
              <option value="4">{WORDS.every4Beats}</option>
              <option value="1">{WORDS.everyBeat}</option>
              <option value="0.5">{WORDS.halfBeats}</option>
              <option value="0.25">{WORDS.quarterBeats}</option>
            </Choice>
          </Row>
          {stagger.rhythm && (
            <Row name={WORDS.rhythm}>
              <Input
                className="mono"
                aria-label={WORDS.rhythmOfTheStagger}
                value={stagger.rhythm.pattern}
                spellCheck={false}
                width="90px"
                padding="2px 6px"
                onKeyDown={(e) => e.stopPropagation()}
                onChange={(e) =>
                  e.target.value &&
                  set(
                    { stagger: { ...stagger, rhythm: { ...stagger.rhythm!, pattern: e.target.value.slice(0, 64) } } },
                    `rhythm-${use.id}`,
                  )
                }
              />
            </Row>
          )}
        </>
      )}
      <Row name={WORDS.lands}>
        {pinned ? (
          <>
            <Choice
              aria-label={WORDS.whatLands}
              padding="3px 4px"
              value={use.landing}
              onChange={(e) => set({ landing: e.target.value as Landing })}
            >
              {Object.entries(LANDINGS).map(([id, label]) => (
                <option key={id} value={id}>
                  {label}
                </option>
              ))}
            </Choice>
            <Span className="mono" fontSize="12px">
              {formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, times.timeOf(pinned))))}
            </Span>
            <Button variant="quiet" padding="0" aria-label={WORDS.landWithTheLayer} onClick={() => set({ at: null })}>
              ×
            </Button>
          </>
        ) : (
          <Button variant="quiet" padding="2px 0" onClick={() => set({ at: momentAtPlayhead() })}>
            {use.role === 'exit' ? WORDS.atTheEnd : use.role === 'entrance' ? WORDS.atTheStart : WORDS.inBetween}
            {WORDS.pinHere}
          </Button>
        )}
      </Row>
      {definition &&
        !use.tracks &&
        Object.entries(definition.parameters).map(([id, p]) => {
          const f = p.unit === '%' ? 100 : 1;
          return (
            <Row key={id} name={p.label}>
              <NumberField
                label={p.label}
                value={(use.parameters[id] ?? p.default) * f}
                unit={p.unit}
                min={p.min * f}
                max={p.max * f}
                step={p.unit === 'em' ? 0.02 : 1}
                decimals={p.unit === 'em' ? 2 : 0}
                width={64}
                onChange={(v, g) => set({ parameters: { ...use.parameters, [id]: v / f } }, g)}
              />
            </Row>
          );
        })}
      {tracksOf(use, piece.gestures).tint && (
        <Row name={WORDS.colour}>
          <ColourField
            compact
            label={WORDS.colourOfTheGesture}
            value={use.colour}
            onChange={(colour, g) => set({ colour }, g)}
          />
        </Row>
      )}
      {use.tracks && <PointsEditor tracks={use.tracks} onChange={(tracks, g) => set({ tracks }, g)} />}
    </Box>
  );
}

function KeepOwn({ layer, role }: { layer: Layer; role: GestureRole }) {
  const [name, setName] = useState<string | null>(null);
  if (name === null)
    return (
      <Button variant="quiet" marginTop="8px" onClick={() => setName('')}>
        {WORDS.keepThisLayersKeyframes}
      </Button>
    );
  return (
    <Box
      as="form"
      display="flex"
      gap="5px"
      marginTop="8px"
      onSubmit={(e) => {
        e.preventDefault();
        if (name.trim() && keepAsGesture(layer, role, name.trim().slice(0, 80))) setName(null);
      }}
    >
      <Input
        autoFocus
        aria-label={WORDS.nameOfTheGesture}
        placeholder={WORDS.name}
        value={name}
        flex="1"
        minWidth="0"
        onKeyDown={(e) => {
          e.stopPropagation();
          if (e.key === 'Escape') setName(null);
        }}
        onChange={(e) => setName(e.target.value)}
      />
      <Button variant="soft" disabled={!name.trim()}>
        {WORDS.keep}
      </Button>
    </Box>
  );
}

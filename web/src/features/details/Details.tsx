import { ChevronLeft, ChevronRight } from 'lucide-react';
import { useEffect, useState } from 'react';
import { BLEND_MODES, GRADIENTS, LAYER_KINDS, PROPERTIES, PROPERTY_IDS, propertyDefinition } from '@core/piece';
import type { BlendMode, Layer, PropertyId } from '@core/piece';
import { beatToBar, formatBarBeat, secondsToBeat } from '@core/time';
import { playhead } from '../../platform/clock';
import { edit, useDesk } from '../../store/desk-store';
import { usePiece, useSelectedLayer, useTimes } from '../../store/selectors';
import { ColourField } from '../../ui/ColourField';
import { NumberField } from '../../ui/NumberField';
import { Star } from '../../ui/Star';
import { goToKey, setValue, toggleKey, valueNow } from '../desk/commands';
import { DressSection } from './DressSection';
import { EasingEditor } from './EasingEditor';
import { FontChooser } from './FontChooser';

/** Repaints about ten times a second while the playhead moves: numbers are for reading, not for every frame. */
function usePlayheadTick(): number {
  const [seconds, setSeconds] = useState(playhead.seconds);
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | null = null;
    const stop = playhead.subscribe(() => {
      timer ??= setTimeout(() => {
        timer = null;
        setSeconds(playhead.seconds);
      }, 90);
    });
    return () => {
      stop();
      if (timer) clearTimeout(timer);
    };
  }, []);
  return seconds;
}

function PropertyRow({ layer, property }: { layer: Layer; property: PropertyId }) {
  const times = useTimes();
  const piece = usePiece();
  const definition = propertyDefinition(property);
  const track = layer.tracks[property];
  const value = valueNow(layer, property);
  if (!track || value === null) return null;
  const halfFrame = piece.frameRate.den / piece.frameRate.num / 2;
  const here = track.keyframes.find((key) => Math.abs(times.timeOf(key.at) - playhead.seconds) < halfFrame);
  const isAnimated = track.keyframes.length > 0;
  const f = definition.shownFactor;
  const limits = { ...(definition.min !== undefined ? { min: definition.min * f } : {}), ...(definition.max !== undefined ? { max: definition.max * f } : {}) };
  return (
    <div className="prop">
      <button className="quiet" style={{ padding: 0, opacity: isAnimated ? 1 : 0.45 }} aria-label={here ? `Remove the ${definition.label} keyframe here` : `Keyframe ${definition.label} here`} aria-pressed={here !== undefined} disabled={layer.locked} onClick={() => toggleKey(layer, property)}>
        <Star pinned={here !== undefined} holds={here?.easing.type === 'hold'} size={15} />
      </button>
      <span className="name">{definition.label}</span>
      <span style={{ display: 'flex', gap: 4 }}>
        {typeof value === 'number' && <NumberField label={definition.label} value={value * f} unit={definition.unit} step={definition.step} {...limits} disabled={layer.locked} onChange={(v, gesture) => setValue(layer, property, v / f, gesture)} />}
        {Array.isArray(value) && [0, 1].map((i) => (
          <NumberField key={i} label={`${definition.label} ${property === 'dimensions' ? (i ? 'height' : 'width') : i ? 'y' : 'x'}`} value={(value[i] ?? 0) * f} unit={definition.unit === '%' ? '%' : ''} step={definition.step} {...limits} width={58} decimals={1} disabled={layer.locked} onChange={(v, gesture) => setValue(layer, property, i === 0 ? [v / f, value[1]] : [value[0], v / f], gesture)} />
        ))}
        {typeof value === 'string' && <ColourField label={definition.label} value={value} onChange={(v, gesture) => setValue(layer, property, v, gesture)} />}
      </span>
    </div>
  );
}

/** Properties that say nothing until something else is there: parts of a stroke, how far a band is drawn. */
const DRAWN: readonly PropertyId[] = ['drawStart', 'drawEnd', 'drawOffset', 'reveal'];
function wears(layer: Layer, property: PropertyId): boolean {
  if (property === 'reveal') return layer.kind === 'text' && (layer.content.dress.band !== null || layer.content.dress.rule !== null);
  return Number(layer.tracks.strokeWidth?.value ?? 0) > 0 || (layer.tracks.strokeWidth?.keyframes.length ?? 0) > 0;
}

/** Properties in order of use, without those that have no meaning for the layer as it is. */
function shownProperties(layer: Layer): PropertyId[] {
  const first: PropertyId[] = layer.kind === 'text' ? ['size', 'weight', 'tracking', 'leading', 'fill'] : ['dimensions', 'fill', 'cornerRadius'];
  const all = [...first, ...PROPERTY_IDS.filter((p) => !first.includes(p))];
  const gradient = 'gradient' in layer.content ? layer.content.gradient : 'none';
  return all.filter((p) => p in LAYER_KINDS[layer.kind].properties && layer.tracks[p] && !(gradient === 'none' && p === 'fillEnd') && !(gradient !== 'linear' && p === 'gradientAngle') && !(DRAWN.includes(p) && !wears(layer, p)));
}

function TextContent({ layer }: { layer: Extract<Layer, { kind: 'text' }> }) {
  const set = (content: Record<string, unknown>) => edit([{ type: 'layer.setContent', id: layer.id, content }]);
  const { content } = layer;
  return (
    <>
      <div className="prop"><span /><span className="name">Face</span><FontChooser family={content.family} sample={content.text} onChoose={(family) => set({ family })} /></div>
      <div className="prop">
        <span /><span className="name">Align</span>
        <span style={{ display: 'flex' }}>
          {(['left', 'center', 'right'] as const).map((align) => (
            <button key={align} className="quiet" aria-label={`Align ${align}`} aria-pressed={content.align === align} onClick={() => set({ align })}>
              <svg width="15" height="12" viewBox="0 0 15 12" aria-hidden="true">{[14, 8, 11].map((w, i) => <rect key={i} x={align === 'left' ? 0 : align === 'right' ? 14 - w : (14 - w) / 2} y={i * 5} width={w} height="1.8" fill="currentColor" />)}</svg>
            </button>
          ))}
          <button className="quiet" aria-pressed={content.italic} aria-label="Italic" style={{ fontStyle: 'italic' }} onClick={() => set({ italic: !content.italic })}>i</button>
        </span>
      </div>
      <div className="prop"><span /><span className="name">Line width</span>
        {content.wrapWidth === null ? <button className="quiet" onClick={() => set({ wrapWidth: 800 })}>as typed</button> : <span style={{ display: 'flex' }}><NumberField label="Line width" value={content.wrapWidth} unit="px" min={10} onChange={(wrapWidth) => set({ wrapWidth })} /><button className="quiet" onClick={() => set({ wrapWidth: null })} aria-label="Keep lines as typed">×</button></span>}
      </div>
    </>
  );
}

/** What the selection has, the most used first. */
export function Details() {
  usePlayheadTick();
  const piece = usePiece();
  const times = useTimes();
  const layer = useSelectedLayer();
  const count = useDesk((s) => s.selectedLayers.length);
  const selectedKeys = useDesk((s) => s.selectedKeys);
  if (!layer) {
    return (
      <aside className="details" aria-label="Details">
        <h2 className="title">Nothing selected</h2>
        <p className="muted">Click something on the canvas or its bar on the timeline. Its size, colours and movement are set here.</p>
        <p className="muted">Press <kbd>T</kbd> for new words, <kbd>Space</kbd> to play.</p>
      </aside>
    );
  }
  const keyframes = (
    <>
      <hr className="rule" />
      <div style={{ display: 'flex', alignItems: 'center', gap: 6 }}>
        <strong style={{ flex: 1, fontWeight: 600 }}>Keyframes</strong>
        <button className="quiet" aria-label="To the keyframe before" onClick={() => goToKey(-1)}><ChevronLeft size={16} /></button>
        <button className="quiet" aria-label="To the next keyframe" onClick={() => goToKey(1)}><ChevronRight size={16} /></button>
      </div>
      {selectedKeys.length > 0 ? <EasingEditor /> : <p className="muted" style={{ margin: '6px 0' }}>The star beside a value sets a keyframe at the playhead. Select stars to shape how they run.</p>}
      {selectedKeys.length === 1 && <p className="muted" style={{ fontSize: 12 }}>{PROPERTIES[selectedKeys[0]!.property].label}</p>}
    </>
  );
  const bar = (seconds: number) => formatBarBeat(beatToBar(times.grid, secondsToBeat(times.grid, seconds)));
  return (
    <aside className="details" aria-label="Details">
      <h2 className="title" style={{ overflow: 'hidden', textOverflow: 'ellipsis', whiteSpace: 'nowrap' }}>{count > 1 ? `${count} layers` : layer.name}</h2>
      <div className="muted" style={{ fontSize: 12, marginBottom: 8 }}>{LAYER_KINDS[layer.kind].label.toLowerCase()} · bars {bar(times.timeOf(layer.start))} to {bar(times.timeOf(layer.end))}{layer.locked ? ' · locked' : ''}</div>
      {selectedKeys.length > 0 && <>{keyframes}<hr className="rule" /></>}
      {layer.kind === 'text' && <TextContent layer={layer} />}
      {shownProperties(layer).map((property) => <PropertyRow key={property} layer={layer} property={property} />)}
      {'gradient' in layer.content && (
        <div className="prop"><span /><span className="name">Filled</span>
          <select className="field" aria-label="Kind of fill" value={layer.content.gradient} onChange={(e) => edit([{ type: 'layer.setContent', id: layer.id, content: { gradient: e.target.value } }])}>
            {GRADIENTS.map((g) => <option key={g} value={g}>{g === 'none' ? 'evenly' : `${g} gradient`}</option>)}
          </select>
        </div>
      )}
      {layer.kind === 'text' && <><hr className="rule" /><DressSection layer={layer} /></>}
      <div className="prop"><span /><span className="name">Blend</span>
        <select className="field" aria-label="Blend mode" value={layer.blend} onChange={(e) => edit([{ type: 'layer.setBlend', ids: [layer.id], blend: e.target.value as BlendMode }])}>
          {Object.entries(BLEND_MODES).map(([id, mode]) => <option key={id} value={id}>{mode.label}</option>)}
        </select>
      </div>
      {piece.leadFormatId !== useDesk.getState().formatId && layer.overrides[useDesk.getState().formatId] && (
        <button className="quiet" onClick={() => edit([{ type: 'layer.setOverride', id: layer.id, formatId: useDesk.getState().formatId, override: null }])}>Follow the lead format again</button>
      )}
      {selectedKeys.length === 0 && keyframes}
    </aside>
  );
}

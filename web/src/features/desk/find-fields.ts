import { LAYER_KINDS, PROPERTY_IDS, hasProperty, propertyDefinition } from '@core/piece';
import { useDesk, setView } from '../../store/desk-store';
import { openPanel } from '../panels/panel-tabs';
import type { Findable } from './findable';
import { focusField } from './focus-field';
import { WORDS } from './words';

/** A control of a panel: where it is, and the names its label has there. */
interface FieldPlace {
  readonly label: string;
  /** Its accessible name, if that is another one. */
  readonly field?: string;
  readonly open: () => void;
}

const panelFields = (): FieldPlace[] => {
  const beats = () => openPanel('music', 'beats');
  const song = () => openPanel('music', 'song');
  const sound = () => openPanel('sound');
  return [
    { label: 'Import song', open: beats },
    { label: 'Tempo', open: beats },
    { label: 'Time signature', open: beats },
    ...(
      [
        ['Half tempo', beats],
        ['Double tempo', beats],
        ['Beat offset', beats],
        ['Target duration', song],
        ['Drop at', song],
        ['Volume', sound],
        ['Fade in', sound],
        ['Fade out', sound],
        ['Song start', sound],
        ['Song trim', sound],
      ] as const
    ).map(([label, open]) => ({
      label,
      open: () => {
        open();
        if (!useDesk.getState().piece?.music) setView({ notice: WORDS.importASongFor(label) });
      },
    })),
    { label: 'Add markers …', field: 'Add markers on', open: () => openPanel('music', 'markers') },
    { label: 'Quote', open: () => openPanel('words', 'phrases') },
    { label: 'Staging', open: () => openPanel('words', 'phrases') },
    { label: 'Reading pace', open: () => openPanel('words', 'phrases') },
    { label: 'Captions to add', open: () => openPanel('words', 'captions') },
    { label: 'Credits', open: () => openPanel('words', 'credits') },
    { label: 'Import picture, clip or logo', open: () => openPanel('picture', 'put') },
    { label: 'Add effect', open: () => openPanel('picture', 'effects') },
    { label: 'Add mask', field: 'Rectangle', open: () => openPanel('picture', 'masks') },
    { label: 'Track matte', field: 'Matte layer', open: () => openPanel('picture', 'masks') },
    { label: 'Search gestures', open: () => openPanel('motion', 'gestures') },
    { label: 'Spread on', open: () => openPanel('motion', 'beats') },
    { label: 'Shutter angle', open: () => openPanel('motion', 'smear') },
    { label: 'Trail', open: () => openPanel('motion', 'smear') },
    { label: 'Drive a property by the music', open: () => openPanel('motion', 'listen') },
    { label: 'Parent', open: () => openPanel('motion', 'follow') },
    { label: 'Background', open: () => openPanel('colour', 'piece') },
    { label: 'Add colour role', open: () => openPanel('colour', 'wardrobe') },
    { label: 'Palette from picture …', field: 'Picture for palette', open: () => openPanel('colour', 'wardrobe') },
    { label: 'Check contrast', open: () => openPanel('run-through') },
    { label: 'Check flashes', open: () => openPanel('run-through') },
    { label: 'Destination', open: () => openPanel('send') },
    { label: 'Set as poster frame', field: 'Set as poster frame', open: () => openPanel('send') },
    { label: 'Save project file', open: () => openPanel('send') },
    { label: 'Earlier revisions', open: () => openPanel('send') },
    { label: 'Duration', open: () => undefined },
    { label: 'Time', open: () => undefined },
    { label: 'Frame rate', open: () => undefined },
    { label: 'Add format', open: () => undefined },
    { label: 'Piece name', open: () => undefined },
    { label: 'Use light theme', field: 'Use light theme', open: () => undefined },
    { label: 'Rulers, grid and guides', open: () => undefined },
    { label: 'Snapping step', open: () => undefined },
    { label: 'Show preview frame rate', open: () => undefined },
  ];
};

/** Controls that stand in the details of some layers only. */
const DETAIL_FIELDS: readonly (readonly [label: string, kinds: readonly string[], field?: string])[] = [
  ['Font', ['text'], 'Font:'],
  ['Text effects', ['text']],
  ['Text path', ['text']],
  ['Style', ['text']],
  ['Wrap width', ['text']],
  ['Fit', ['picture']],
  ['Speed', ['picture', 'group', 'piece']],
  ['Freeze', ['picture', 'group', 'piece']],
  ['Loop', ['picture', 'group', 'piece']],
  ['Trim start', ['picture']],
  ['Track subject', ['picture']],
  ['Find subject', ['picture']],
  ['Blend mode', []],
  ['Easing', []],
  ['Fit around', ['rectangle', 'ellipse', 'path', 'figure']],
  ['In other frame sizes', []],
];

function toDetails(label: string, field: string, kinds: readonly string[]): void {
  const { piece, selectedLayers } = useDesk.getState();
  const layer = piece?.layers.find((one) => one.id === selectedLayers[0]);
  if (!layer) return setView({ notice: WORDS.selectALayerFor(label) });
  if (kinds.length > 0 && !kinds.includes(layer.kind)) return setView({ notice: WORDS.hasNone(layer.name, label) });
  focusField(field);
}

/** Fields of panels, of the transport and of the details; choosing one goes to it with the focus in it. */
export function fieldFindables(): Findable[] {
  const layerFields = PROPERTY_IDS.map((property): Findable => {
    const { label, kind } = propertyDefinition(property);
    const kinds = Object.keys(LAYER_KINDS).filter((one) => hasProperty(one as keyof typeof LAYER_KINDS, property)); // keys of the table
    const field = kind === 'vector' ? `${label} ${property === 'dimensions' ? 'width' : 'x'}` : label;
    return { id: `property ${property}`, label, kind: 'property', run: () => toDetails(label, field, kinds) };
  });
  return [
    ...panelFields().map(({ label, field, open }): Findable => ({
      id: `field ${label}`,
      label,
      kind: 'field',
      run: () => {
        open();
        focusField(field ?? label);
      },
    })),
    ...DETAIL_FIELDS.map(([label, kinds, field]): Findable => ({
      id: `detail ${label}`,
      label,
      kind: 'field',
      run: () => toDetails(label, field ?? label, kinds),
    })),
    ...layerFields,
  ];
}

import {
  ChartPie,
  Circle,
  CircleDot,
  Diamond,
  Hexagon,
  Layers2,
  MessageSquare,
  Minus,
  MoveRight,
  PenLine,
  PenTool,
  Square,
  Star,
  Waves,
} from 'lucide-react';
import type { ComponentType, ReactNode } from 'react';
import { FIGURES } from '@core/geometry';
import type { FigureId, FigureNumbers } from '@core/geometry';
import { trackOf } from '@core/piece';
import type { Layer, LayerKind, MediaRef, Piece, PropertyId } from '@core/piece';
import { frameOf } from '@core/scene';
import { stillAddress } from '../../platform/still-address';
import { setView } from '../../store/desk-store';
import { DressSection } from '../type/DressSection';
import { StyleSection } from '../type/StyleSection';
import { FaceSection, SettingSection } from '../type/TypeSection';
import { FormsSection } from '../canvas/FormsSection';
import { PointsSection, ToPointsSection } from '../canvas/PointsSection';
import { CombineSection } from './CombineSection';
import { WornLogo } from '../wardrobe/WornLogo';
import { WithinSection } from '../within/WithinSection';
import { LookSection } from '../effects/LookSection';
import { SlotsSection } from '../templates/SlotsSection';
import { GroupTimeSection } from '../ties/GroupTimeSection';
import { FootageSection } from '../footage/FootageSection';
import { FramingSection } from '../framing/FramingSection';
import { LogoSection } from '../logo/LogoSection';
import { inkOn, layerColour } from '../timeline/layer-colour';
import { addEllipse, addFigure, addKite, addLook, addRectangle, addWave } from './add-layers';
import { WORDS } from './words';

/** A way to put a layer of a kind into the piece. */
export interface AddEntry {
  readonly id: string;
  readonly label: string;
  readonly icon: ReactNode;
  readonly run: () => void;
}

type Of<K extends LayerKind> = Extract<Layer, { kind: K }>;
type Section<K extends LayerKind> = ComponentType<{ layer: Of<K> }>;

/** All that the interface knows of a kind of layer. */
interface KindOnDesk<K extends LayerKind> {
  /** The tiny picture of what a layer draws; null for none. */
  readonly icon: (layer: Of<K>, media: Piece['media']) => ReactNode;
  readonly add: readonly AddEntry[];
  /** Properties that come first in the details. */
  readonly first: readonly PropertyId[];
  /** Whether a property says anything for the layer as it is. */
  readonly shows?: (layer: Of<K>, property: PropertyId) => boolean;
  /** What stands in the details above and below the properties. */
  readonly above?: readonly Section<K>[];
  readonly below?: readonly Section<K>[];
}

const drawing = (children: ReactNode): ReactNode => (
  <svg viewBox="-11 -10 22 20" className="layer-icon" aria-hidden="true">
    {children}
  </svg>
);
const SHAPE_FIRST: readonly PropertyId[] = ['dimensions', 'fill', 'cornerRadius'];

/** Figures by the buttons that make them. */
const FIGURE_ENTRIES: readonly (readonly [FigureId, ReactNode])[] = [
  ['polygon', <Hexagon key="i" size={16} />],
  ['star', <Star key="i" size={16} />],
  ['ring', <CircleDot key="i" size={16} />],
  ['arc', <ChartPie key="i" size={16} />],
  ['arrow', <MoveRight key="i" size={16} />],
  ['bubble', <MessageSquare key="i" size={16} />],
  ['line', <Minus key="i" size={16} />],
];
/** Figures for which a number says something; those that are not named say something for all. */
const FIGURES_WITH: Partial<Record<PropertyId, readonly FigureId[]>> = {
  points: ['polygon', 'star'],
  inner: ['star', 'ring', 'arc', 'arrow', 'bubble'],
  head: ['arrow', 'bubble'],
  sweepFrom: ['arc'],
  sweep: ['arc'],
  cornerRadius: ['polygon', 'star', 'arrow', 'bubble'],
};
const ICON_NUMBERS: FigureNumbers = {
  width: 17,
  height: 17,
  points: 5,
  inner: 0.5,
  radius: 0,
  from: 0,
  sweep: 270,
  head: 0.4,
};
const inked = (layer: Of<'figure'>): { fill: string; stroke?: string; strokeWidth?: number } =>
  layer.content.figure === 'line'
    ? { fill: 'none', stroke: layerColour(layer), strokeWidth: 2 }
    : { fill: layerColour(layer) };

const firstFrame = ({ footage }: MediaRef, { content }: Of<'picture'>): number =>
  footage ? (frameOf(footage, content.from) ?? 0) : 0;

export const LAYERS_ON_DESK: { readonly [K in LayerKind]: KindOnDesk<K> } = {
  text: {
    icon: (layer) => {
      const colour = layerColour(layer);
      return (
        <span aria-hidden="true" className="layer-icon letters" style={{ background: colour, color: inkOn(colour) }}>
          {layer.content.text.trim().slice(0, 2)}
        </span>
      );
    },
    // Words come in by their own panel.
    add: [],
    first: [
      'size',
      'weight',
      'letterWidth',
      'lean',
      'axisA',
      'axisB',
      'axisC',
      'opticalSize',
      'tracking',
      'leading',
      'bend',
      'pathShift',
      'fill',
    ],
    shows: ({ content: { along, picture, dress } }, property) => {
      switch (property) {
        case 'bend':
          return along?.shape === 'arc';
        case 'pathShift':
          return along !== null;
        case 'pictureZoom':
        case 'pictureShift':
          return picture !== null;
        case 'reveal':
          return dress.band !== null || dress.rule !== null;
        default:
          return true;
      }
    },
    above: [StyleSection, FaceSection],
    below: [SettingSection, DressSection],
  },
  rectangle: {
    icon: (layer) => drawing(<rect x="-9" y="-6" width="18" height="12" rx="1.5" fill={layerColour(layer)} />),
    add: [{ id: 'rectangle', label: WORDS.rectangle, icon: <Square size={16} />, run: addRectangle }],
    first: SHAPE_FIRST,
    below: [ToPointsSection],
  },
  ellipse: {
    icon: (layer) => drawing(<ellipse rx="8" ry="8" fill={layerColour(layer)} />),
    add: [{ id: 'ellipse', label: WORDS.ellipse, icon: <Circle size={16} />, run: addEllipse }],
    first: SHAPE_FIRST,
    below: [ToPointsSection],
  },
  path: {
    icon: (layer) => {
      const [width, height] = layer.content.box;
      const isOpen = (trackOf(layer, 'fill')?.value as string | undefined)?.endsWith('00'); // a colour track
      return drawing(
        <path
          transform={`scale(${17 / Math.max(width, height)}) translate(${-width / 2} ${-height / 2})`}
          d={layer.content.d}
          fill={isOpen ? 'none' : layerColour(layer)}
          stroke={layerColour(layer)}
          strokeWidth={Math.max(width, height) / 14}
        />,
      );
    },
    add: [
      { id: 'diamond', label: WORDS.diamond, icon: <Diamond size={16} />, run: addKite },
      { id: 'wave', label: WORDS.wave, icon: <Waves size={16} />, run: addWave },
      {
        id: 'line',
        label: WORDS.drawnLine,
        icon: <PenLine size={16} />,
        run: () => setView({ drawingFor: { kind: 'line' }, notice: WORDS.drawOnTheCanvas }),
      },
      {
        id: 'pen',
        label: WORDS.drawnPoints,
        icon: <PenTool size={16} />,
        run: () => setView({ drawingFor: { kind: 'pen' }, notice: WORDS.clickForPoints }),
      },
    ],
    first: ['dimensions', 'form', 'fill', 'cornerRadius'],
    shows: ({ content: { forms } }, property) => property !== 'form' || forms.length > 0,
    below: [PointsSection, FormsSection],
  },
  figure: {
    icon: (layer) =>
      drawing(<path d={FIGURES[layer.content.figure].path(ICON_NUMBERS)} fillRule="evenodd" {...inked(layer)} />),
    add: FIGURE_ENTRIES.map(([figure, icon]) => ({
      id: figure,
      label: FIGURES[figure].label,
      icon,
      run: () => addFigure(figure),
    })),
    first: ['dimensions', 'points', 'inner', 'head', 'sweepFrom', 'sweep', 'fill', 'cornerRadius'],
    below: [ToPointsSection],
    shows: ({ content: { figure } }, property) => {
      const wanted = FIGURES_WITH[property];
      return wanted === undefined || wanted.includes(figure);
    },
  },
  picture: {
    icon: (layer, files) => {
      const media = files.find((m) => m.id === layer.content.mediaId);
      const address = media && stillAddress(media, firstFrame(media, layer));
      return <img alt="" src={address} className="layer-icon" />;
    },
    // A picture comes in with its file.
    add: [],
    first: SHAPE_FIRST,
    shows: ({ content: { fit } }, property) => fit === 'fill' || (property !== 'focus' && property !== 'pictureZoom'),
    above: [WornLogo, FootageSection, FramingSection],
  },
  // A group is made of what is selected; its row shows whether it is open instead of a picture.
  group: {
    icon: () => null,
    add: [],
    first: ['position', 'scale', 'rotation', 'opacity'],
    above: [SlotsSection],
    below: [CombineSection, LogoSection, GroupTimeSection],
  },
  piece: {
    icon: (layer) => <img alt="" src={`/api/pieces/${layer.content.pieceId}/frame/poster`} className="layer-icon" />,
    // A piece is chosen among the others.
    add: [],
    first: ['position', 'scale', 'rotation', 'opacity'],
    below: [WithinSection, GroupTimeSection],
  },
  look: {
    icon: (layer) =>
      drawing(<circle r="8" fill="none" stroke={layerColour(layer)} strokeWidth="2" strokeDasharray="3 2" />),
    add: [{ id: 'look', label: WORDS.look, icon: <Layers2 size={16} />, run: addLook }],
    first: ['opacity', 'blur'],
    shows: (_, property) => property === 'opacity' || property === 'blur',
    below: [LookSection],
  },
};

/** The row of a layer's own kind; its functions take that layer. */
export const onDesk = (layer: Layer): KindOnDesk<LayerKind> =>
  LAYERS_ON_DESK[layer.kind] as unknown as KindOnDesk<LayerKind>;

/** Every way to put a layer into the piece, in the order of the table. */
export const addEntries = (): AddEntry[] => Object.values(LAYERS_ON_DESK).flatMap((kind) => kind.add);

import type { ActorTracks } from './actor';
import type { GestureRole, UnitKind } from './gesture-use';
import type { StaggerOrder } from './stagger';

export interface GestureParameter {
  readonly label: string;
  readonly min: number;
  readonly max: number;
  readonly default: number;
  readonly unit: '' | '%' | '°' | 'em';
}

/** Which of the units a track is made for; `random` gives numbers in [0, 1) of its own, the same each time. */
export interface UnitContext {
  readonly index: number;
  readonly count: number;
  readonly random: (k: number) => number;
}

export interface GestureDefinition {
  readonly label: string;
  /** Plain words to find it by. */
  readonly feel: string;
  readonly roles: readonly GestureRole[];
  readonly unit: UnitKind;
  /** Beats the whole takes. */
  readonly beats: number;
  readonly order: StaggerOrder;
  readonly overlap: number;
  readonly parameters: Readonly<Record<string, GestureParameter>>;
  /** Accents that come again: every so many beats. `stay` lasts as long as the layer. */
  readonly every?: number | 'stay';
  /**
   * What is its peak as an entrance or exit: when it first arrives where it ends (as where nothing is said), or when it
   * is fastest, for what swells and fades evenly.
   */
  readonly peak?: 'fastest';
  /** What it does to the letters themselves. */
  readonly does?: 'types' | 'counts';
  readonly tracks: (p: Readonly<Record<string, number>>, unit: UnitContext) => ActorTracks;
}

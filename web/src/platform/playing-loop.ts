import { frameMiddle, secondsToFrame } from '@core/time';
import type { FrameRate, Seconds } from '@core/time';
import { secondsHeardAt } from './heard-clock';
import type { HeardPass } from './heard-clock';

/**
 * Paints while sound plays: in each turn of the screen the frame that is heard in the middle of the time for which it
 * will be on the screen. That lies ahead of the turn by what painting takes and by the turn after which it is shown.
 */
export interface LoopHost {
  /** Milliseconds since the epoch. */
  readonly now: () => number;
  /** Calls back in the next turn of the screen. */
  readonly nextTurn: (run: () => void) => void;
  /** Paints a moment. @returns how long it took, milliseconds. */
  readonly paint: (seconds: Seconds) => number;
}

export interface Heard {
  readonly passes: readonly HeardPass[];
  readonly frameRate: FrameRate;
}

/** Turns of the screen that are taken for possible, milliseconds: 240 to 24 a second. */
const [SHORTEST, LONGEST] = [4, 42];
const USUAL_TURN = 1000 / 60;
/** Turns between the end of painting and the screen. */
const TURNS_TO_SHOW = 1;
/** What a new measurement weighs against those before it. */
const WEIGHT = 0.15;

export class PlayingLoop {
  private heard: Heard | null = null;
  private isRunning = false;
  private lastTurn = 0;
  private turn = USUAL_TURN;
  private painting = 0;
  private shown = -1;

  constructor(private readonly host: LoopHost) {}

  /** Plays on by what is heard; the page tells it again and again while sound plays. */
  play(heard: Heard): void {
    this.heard = heard;
    if (this.isRunning) return;
    this.isRunning = true;
    this.lastTurn = 0;
    this.shown = -1;
    this.host.nextTurn(this.run);
  }

  /** The next frame is painted though it is the one before: something in it is another. */
  again(): void {
    this.shown = -1;
  }

  stop(): void {
    this.heard = null;
  }

  private readonly run = (): void => {
    if (!this.heard) {
      this.isRunning = false;
      return;
    }
    this.host.nextTurn(this.run);
    const now = this.host.now();
    this.measureTurn(now);
    const { passes, frameRate } = this.heard;
    const frame = secondsToFrame(secondsHeardAt(passes, now + this.ahead()), frameRate);
    if (frame === this.shown) return;
    this.shown = frame;
    const took = this.host.paint(frameMiddle(frame, frameRate));
    this.painting += (took - this.painting) * WEIGHT;
  };

  private measureTurn(now: number): void {
    const turn = now - this.lastTurn;
    this.lastTurn = now;
    // A turn that painting filled is several.
    if (turn >= SHORTEST && turn <= LONGEST && this.painting < this.turn * 0.7)
      this.turn += (turn - this.turn) * WEIGHT;
  }

  /** From now to the middle of the time for which the frame is on the screen, milliseconds. */
  private ahead(): number {
    const turns = Math.floor(this.painting / this.turn) + TURNS_TO_SHOW;
    // It stays for as long as the next one takes.
    return turns * 1.5 * this.turn;
  }
}

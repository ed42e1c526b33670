import { frameMiddle, secondsToFrame } from '@core/time';
import type { OpenPage } from './open-page';
import { createPlayClock } from './play-clock';

export interface Player {
  readonly isPlaying: boolean;
  /** The frame that is shown. */
  readonly frame: number;
  toggle(): void;
  /** The nearest frame that there is. */
  goTo(frame: number): void;
  /** By so many seconds. */
  jump(seconds: number): void;
  toggleSound(): void;
  /** Plays again and again, or no longer. */
  toggleRepeat(): void;
}

/**
 * Plays a page: paints each frame as the video of it has it.
 * @param onChange - told of each frame that was painted, and of every start and stop.
 */
export function createPlayer(page: OpenPage, onChange: () => void, onFailure: (error: unknown) => void): Player {
  const clock = createPlayClock(page.sound);
  const last = page.count - 1;
  const rate = page.frameRate.num / page.frameRate.den;
  let frame = -1;
  let repeats = false;
  let ticking = 0;

  const show = (next: number, isWhole: boolean): void => {
    if (next === frame && !isWhole) return;
    frame = next;
    page.paint(next, isWhole).then(onChange, onFailure);
  };
  const pause = (at?: number): void => {
    cancelAnimationFrame(ticking);
    clock.pause(at);
    onChange();
  };
  const tick = (): void => {
    const next = secondsToFrame(clock.seconds, page.frameRate);
    if (next <= last) {
      show(next, false);
      ticking = requestAnimationFrame(tick);
      return;
    }
    show(last, true);
    pause(0);
    if (repeats) play();
  };
  const play = (): void => {
    clock.play().then(() => {
      onChange();
      tick();
    }, onFailure);
  };
  const player: Player = {
    get isPlaying() {
      return clock.isPlaying;
    },
    get frame() {
      return frame;
    },
    toggle: () => (clock.isPlaying ? pause() : play()),
    goTo(wanted) {
      const next = Math.max(0, Math.min(last, wanted));
      const goesOn = clock.isPlaying;
      pause(frameMiddle(next, page.frameRate));
      show(next, true);
      if (goesOn) play();
    },
    jump: (seconds) => player.goTo(frame + Math.round(seconds * rate)),
    toggleSound: () => void (clock.isMuted = !clock.isMuted),
    toggleRepeat: () => void (repeats = !repeats),
  };
  return player;
}

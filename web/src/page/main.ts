import { openPage } from './open-page';
import { createPlayer } from './player';
import type { Player } from './player';

/** Keys of the page; the sheet of them stands in docs/FORMATS.md. */
const KEYS: Readonly<Record<string, (player: Player, isShift: boolean) => void>> = {
  ' ': (player) => player.toggle(),
  ArrowRight: (player, isShift) => (isShift ? player.jump(1) : player.goTo(player.frame + 1)),
  ArrowLeft: (player, isShift) => (isShift ? player.jump(-1) : player.goTo(player.frame - 1)),
  Home: (player) => player.goTo(0),
  End: (player) => player.goTo(Infinity),
  s: (player) => player.toggleSound(),
  r: (player) => player.toggleRepeat(),
  f: () => void (document.fullscreenElement ? document.exitFullscreen() : document.body.requestFullscreen()),
};

const state = document.body.dataset;

function fail(error: unknown): void {
  state.state = 'failed';
  const note = document.querySelector('p');
  if (note)
    note.textContent = `This page cannot be played here: ${error instanceof Error ? error.message : String(error)}`;
}

/** The player of a page that stands alone. `data-state` and `data-frame` say how it is; `#frame=12` shows a frame. */
async function main(): Promise<void> {
  const canvas = document.querySelector('canvas');
  const button = document.querySelector('button');
  if (!canvas || !button) return;
  const page = await openPage(canvas);
  const told = (): void => {
    state.state = player.isPlaying ? 'playing' : 'shown';
    state.frame = String(player.frame);
    button.setAttribute('aria-label', player.isPlaying ? 'Pause' : 'Play');
  };
  const player = createPlayer(page, told, fail);
  addEventListener('keydown', (event) => {
    const act = KEYS[event.key.length === 1 ? event.key.toLowerCase() : event.key];
    if (!act || event.ctrlKey || event.metaKey || event.altKey) return;
    event.preventDefault();
    act(player, event.shiftKey);
  });
  button.addEventListener('click', () => player.toggle());
  const byAddress = (): void => {
    const asked = /^#frame=(\d{1,7})$/.exec(location.hash)?.[1];
    if (asked !== undefined) player.goTo(Number(asked));
  };
  addEventListener('hashchange', byAddress);
  player.goTo(0);
  byAddress();
}

main().catch(fail);

/** The parts of the desk in the order of the work, each with what is reached first in it. */
const REGIONS = ['.ladder', '.panel', '.details', '.transport', '[aria-label="Timeline"]'] as const;

const REACHED = 'button, input, select, textarea, a[href], [tabindex="0"]';

/** What Tab would reach first in a part: the part itself, or the first control in it. */
function firstIn(region: HTMLElement): HTMLElement | null {
  if (region.tabIndex === 0) return region;
  const controls = [...region.querySelectorAll<HTMLElement>(REACHED)];
  return (
    controls.find((control) => control.tabIndex >= 0 && !control.matches(':disabled') && control.offsetParent) ?? null
  );
}

/** Takes the focus to the next part of the desk, or the one before it, round and round. */
export function goToRegion(direction: 1 | -1): void {
  const regions = REGIONS.flatMap((selector) => [...document.querySelectorAll<HTMLElement>(selector)]);
  const at = regions.findIndex((region) => region.contains(document.activeElement));
  const begin = at < 0 ? (direction > 0 ? -1 : 0) : at;
  for (let step = 1; step <= regions.length; step++) {
    const region = regions[(begin + direction * step + regions.length * 2) % regions.length];
    const first = region && firstIn(region);
    if (!first) continue;
    first.focus();
    return;
  }
}

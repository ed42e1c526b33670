/** Frames to wait for a panel that is still being fetched or drawn. */
const MAX_FRAMES = 90;
/** A dialog that closes gives the focus back where it was: for so long it is taken again. */
const SETTLING_FRAMES = 20;
const CONTROL = 'input, select, textarea, button, a[href], [tabindex], [role=combobox]';

/** The control with that accessible name, or the first control in a region or row with it. */
function find(name: string): HTMLElement | null {
  const all = [...document.querySelectorAll<HTMLElement>('[aria-label], label, button, a[href]')];
  const nameOf = (element: HTMLElement) => (element.getAttribute('aria-label') ?? element.textContent ?? '').trim();
  const controls = all.filter((element) => element.matches(CONTROL));
  const named =
    controls.find((element) => nameOf(element) === name) ??
    controls.find((element) => nameOf(element).startsWith(name)) ??
    all.find((element) => nameOf(element) === name);
  if (!named) return null;
  return named.matches(CONTROL) ? named : (named.querySelector<HTMLElement>(CONTROL) ?? named);
}

/** Scrolls to a control of the desk by its accessible name and puts the focus in it, as soon as it is there. */
export function focusField(name: string): void {
  let frames = 0;
  const look = () => {
    const field = find(name);
    if (field && document.activeElement !== field) {
      field.scrollIntoView({ block: 'center' });
      field.focus();
    }
    if (++frames < (field ? Math.min(MAX_FRAMES, SETTLING_FRAMES) : MAX_FRAMES)) requestAnimationFrame(look);
  };
  requestAnimationFrame(look);
}

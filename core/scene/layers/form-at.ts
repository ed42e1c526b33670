import { morphedPath } from '../../geometry';

/** Ways between two forms that are told apart: their paths are kept for the next frame that asks. */
const FORM_STEPS = 1000;

/** A path on its way between its forms: 0 is `d` itself, 1 the first further form, and so on. */
export function formAt(d: string, forms: readonly { readonly d: string }[], form: number): string {
  if (forms.length === 0 || form <= 0) return d;
  const all = [d, ...forms.map((other) => other.d)];
  const at = Math.min(all.length - 1, form);
  const from = Math.min(all.length - 2, Math.floor(at));
  return morphedPath(all[from]!, all[from + 1]!, Math.round((at - from) * FORM_STEPS) / FORM_STEPS); // within the list
}

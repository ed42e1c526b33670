import { createLayoutCache } from '@core/text';
import type { FontLibrary } from '@core/text';
import type { LayoutText } from '@core/scene';
import { createBrowserHost } from './browser-host';

/** What small pictures on the page are painted with; the canvas of the desk has a worker of its own. */
export const pageHost = createBrowserHost('small');

const layouts = new WeakMap<FontLibrary, LayoutText>();
/** Layouts of words that are kept for all pictures together. */
const KEPT = 1000;

export function pageLayout(fonts: FontLibrary): LayoutText {
  let found = layouts.get(fonts);
  if (!found) layouts.set(fonts, (found = createLayoutCache(fonts, KEPT)));
  return found;
}

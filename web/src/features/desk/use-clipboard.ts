import { useEffect } from 'react';
import { setView } from '../../store/desk-store';
import { addText } from '../layers/add-layers';
import { importFiles } from '../panels/imports';
import {
  CLIP_TYPE,
  copiedText,
  copiedWords,
  copySelection,
  cutSelection,
  pasteSelection,
  takeCopied,
} from './clipboard';
import { WORDS } from './words';

/** Words longer than this are not put up as one layer. */
const MOST_WORDS = 5000;

/** A command of the desk is about the desk, wherever the focus is. */
let isFromMenu = false;

/** Fields copy and paste by themselves, and so does text that is marked on the page. */
function isForFields(event: ClipboardEvent): boolean {
  if (isFromMenu) return false;
  const { target } = event;
  if (target instanceof Element && target.closest('input, textarea, [contenteditable]')) return true;
  if (document.querySelector('[role=dialog][data-state=open]')) return true;
  return event.type !== 'paste' && document.getSelection()?.isCollapsed === false;
}

function onCopy(event: ClipboardEvent): void {
  if (isForFields(event) || !event.clipboardData) return;
  if (event.type === 'cut') cutSelection();
  else copySelection();
  const text = copiedText();
  event.preventDefault();
  // Keyframes stay within the tab; what was on the clipboard before must not be pasted in their place.
  event.clipboardData.setData(CLIP_TYPE, text ?? '');
  event.clipboardData.setData('text/plain', copiedWords());
}

/** Says that there is something to copy though no text is marked. */
function onBefore(event: Event): void {
  if (event instanceof ClipboardEvent && !isForFields(event)) event.preventDefault();
}

/** Copies or cuts from a menu as by the key; within the tab alone where the system does not let it. */
export function bySystem(command: 'copy' | 'cut', within: () => void): void {
  // Old, but the only way to set types of one's own without asking for leave.
  isFromMenu = true;
  try {
    if (!document.execCommand(command)) within();
  } finally {
    isFromMenu = false;
  }
}

const asSvg = (text: string): File | null =>
  /^\s*(<\?xml[^>]*>\s*)?(<!--[\s\S]*?-->\s*)*(<!DOCTYPE svg[^>]*>\s*)?<svg[\s>]/i.test(text.slice(0, 4000))
    ? new File([text], `${WORDS.pasted}.svg`, { type: 'image/svg+xml' })
    : null;

function onPaste(event: ClipboardEvent): void {
  const data = event.clipboardData;
  if (isForFields(event) || !data) return;
  event.preventDefault();
  const types = [...data.types];
  const files = [...data.files];
  const words = data.getData('text/plain').trim();
  const svg = asSvg(words) ?? asSvg(data.getData('image/svg+xml'));
  if (types.includes(CLIP_TYPE)) {
    takeCopied(data.getData(CLIP_TYPE));
    pasteSelection();
  } else if (svg) void importFiles([svg]);
  else if (files.length > 0) void importFiles(files);
  else if (words.length > MOST_WORDS) setView({ notice: WORDS.tooManyWords });
  else if (words !== '') addText(words);
  // With nothing on the system's clipboard there may be what the menu copied.
  else pasteSelection();
}

/** Copy, cut and paste by the system's clipboard: layers between pieces and tabs, files, SVG, words. */
export function useClipboard(): void {
  useEffect(() => {
    for (const type of ['copy', 'cut'] as const) document.addEventListener(type, onCopy);
    for (const type of ['beforecopy', 'beforecut']) document.addEventListener(type, onBefore);
    document.addEventListener('paste', onPaste);
    return () => {
      for (const type of ['copy', 'cut'] as const) document.removeEventListener(type, onCopy);
      for (const type of ['beforecopy', 'beforecut']) document.removeEventListener(type, onBefore);
      document.removeEventListener('paste', onPaste);
    };
  }, []);
}

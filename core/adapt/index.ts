export { adaptTo } from './adapt';
export { fillFrameEdits, focusEdits, isReframable } from './frame-picture';

export { SAMPLE_CONTENTS, sampleValues } from './sample-contents';
export type { SampleContent } from './sample-contents';
export { beat, createComposer, even, glide, leave, rise, settle, sway } from './compose';
export type { Keys, Part } from './compose';
export { SHIPPED_TEMPLATES } from './shipped';

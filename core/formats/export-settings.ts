import * as z from 'zod';
import type { Seconds } from '../time';

/** What can be chosen of an export. Each kind names those it has; the others are left as they are. */
export const EXPORT_SETTINGS = {
  rate: 'Quality or size',
  passes: 'Two passes',
  loudness: 'Loudness',
  captions: 'Captions',
  chapters: 'Chapters',
  moving: 'Moving picture',
  still: 'Quality of the still',
} as const;
export type ExportSettingId = keyof typeof EXPORT_SETTINGS;

/** How good moving pictures are where no size is asked for. */
export const QUALITIES = {
  small: { label: 'Small', hint: 'half the size; fine on a phone' },
  good: { label: 'Good', hint: 'no visible loss' },
  finest: { label: 'Finest', hint: 'for places that re-encode; twice the size' },
} as const;
export type Quality = keyof typeof QUALITIES;
const QUALITY_IDS = Object.keys(QUALITIES) as [Quality, ...Quality[]]; // keys of a literal object

/** How the few colours of a GIF stand for all. */
export const DITHERS = {
  diffusion: { label: 'Diffused', hint: 'soft, only where something moves' },
  pattern: { label: 'Pattern', hint: 'fixed pattern; compresses better' },
  none: { label: 'None', hint: 'flat colours; smallest' },
} as const;
export type Dither = keyof typeof DITHERS;
const DITHER_IDS = Object.keys(DITHERS) as [Dither, ...Dither[]];

/** Targets of loudness that places ask for, LUFS. */
export const LOUDNESS_TARGETS = {
  '-14': 'players on the web',
  '-16': 'podcasts and phones',
  '-23': 'broadcast (EBU R 128)',
} as const;

const megabytes = z.number().min(0.05).max(20_000);

export const exportSettingsSchema = z.strictObject({
  rate: z
    .discriminatedUnion('by', [
      z.strictObject({ by: z.literal('quality'), quality: z.enum(QUALITY_IDS) }),
      z.strictObject({
        by: z.literal('bits'),
        /** Of the picture, kbit/s. */
        kilobits: z.number().int().min(50).max(400_000),
        /** Two passes put the bits where the picture needs them; takes twice as long. */
        isTwoPass: z.boolean(),
      }),
      z.strictObject({ by: z.literal('size'), megabytes }),
    ])
    .default({ by: 'quality', quality: 'good' }),
  /** LUFS over the whole (ITU-R BS.1770-4), and the true peak that nothing goes over, dBTP; null leaves the mix alone. */
  loudness: z
    .strictObject({ target: z.number().min(-40).max(-6), peak: z.number().min(-12).max(0) })
    .nullable()
    .default(null),
  captions: z.enum(['shown', 'left out']).default('shown'),
  /** Chapters from the sections of the song. */
  hasChapters: z.boolean().default(false),
  moving: z
    .strictObject({
      /** Pixels; null for as large as the kind usually is. */
      longerSide: z.number().int().min(64).max(1920).nullable(),
      /** At most; null for as many as the kind usually has. */
      framesPerSecond: z.number().int().min(1).max(50).nullable(),
      dither: z.enum(DITHER_IDS),
      /** How many times it plays; 0 again and again. */
      plays: z.number().int().min(0).max(1000),
      /** The file is made smaller until it is at most so large; null for no bound. */
      megabytes: megabytes.nullable(),
    })
    .default({ longerSide: null, framesPerSecond: null, dither: 'diffusion', plays: 0, megabytes: null }),
  still: z.strictObject({ quality: z.number().int().min(1).max(100) }).default({ quality: 92 }),
});
export type ExportSettings = z.infer<typeof exportSettingsSchema>;
/** As much of the settings as is asked for: the rest is as usual. */
export type AskedSettings = z.input<typeof exportSettingsSchema>;

export const USUAL_SETTINGS: ExportSettings = exportSettingsSchema.parse({});

const SETTING_OF: Readonly<Record<keyof ExportSettings, ExportSettingId>> = {
  rate: 'rate',
  loudness: 'loudness',
  captions: 'captions',
  hasChapters: 'chapters',
  moving: 'moving',
  still: 'still',
};

/** The settings with those that a kind does not have as usual: files that come out alike are asked for alike. */
export function settingsFor(has: readonly ExportSettingId[], settings: ExportSettings): ExportSettings {
  const entries = Object.entries(SETTING_OF) as [keyof ExportSettings, ExportSettingId][]; // keys of a typed record
  const own = Object.fromEntries(
    entries.map(([key, id]) => [key, (has.includes(id) ? settings : USUAL_SETTINGS)[key]]),
  ) as ExportSettings;
  if (own.rate.by !== 'bits' || has.includes('passes')) return own;
  return { ...own, rate: { ...own.rate, isTwoPass: false } };
}

/** Of sound beside the picture, kbit/s; and the share of a file that is neither. */
const SOUND_KILOBITS = 192;
const AROUND = 0.015;
const LEAST_KILOBITS = 40;

/** Bits a second that are left for the picture of a file of so many megabytes (10⁶ bytes), kbit/s. */
export const kilobitsFor = (megabytesOfFile: number, duration: Seconds, hasSound: boolean): number =>
  Math.max(
    LEAST_KILOBITS,
    Math.floor((megabytesOfFile * 8000 * (1 - AROUND)) / Math.max(duration, 0.04) - (hasSound ? SOUND_KILOBITS : 0)),
  );

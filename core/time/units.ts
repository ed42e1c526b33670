/** Unit vocabulary of every public signature: a reader sees from the type what a number measures. */

/** A point in time or a duration, in seconds (float64). */
export type Seconds = number;
/** Zero-based index of a video frame; frame k shows time k / rate. */
export type FrameIndex = number;
/** Beats per minute. */
export type Bpm = number;
/** A position on the beat grid in beats; 0 is the first downbeat, fractions lie between beats. */
export type Beats = number;
export type Hertz = number;
/** Pixels of the format being drawn, y down. */
export type Pixels = number;
/** Angle in degrees, clockwise on screen. The document and the interface both use degrees. */
export type Degrees = number;
/** A number in [0, 1]. */
export type UnitInterval = number;

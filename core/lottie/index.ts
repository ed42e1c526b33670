export { LottieWriter } from './write-lottie';
export type { LottieOptions, WrittenLottie } from './write-lottie';
export type { FilePicture } from './write-layers';

declare module 'bidi-js' {
  interface Embedding {
    levels: Uint8Array;
    paragraphs: { start: number; end: number; level: number }[];
  }
  export default function bidiFactory(): {
    getEmbeddingLevels(text: string, direction?: 'ltr' | 'rtl' | 'auto'): Embedding;
  };
}
declare module 'linebreak' {
  export default class LineBreaker {
    constructor(text: string);
    nextBreak(): { position: number; required: boolean } | null;
  }
}

import { afterEach, beforeEach, describe, expect, it, jest } from '@jest/globals';
import type * as NewsModule from './news';

/** A stream that the test speaks for. */
class FakeStream extends EventTarget {
  static readonly CLOSED = 2;
  static all: FakeStream[] = [];
  readyState = 1;
  constructor(readonly url: string) {
    super();
    FakeStream.all.push(this);
  }
  close(): void {
    this.readyState = FakeStream.CLOSED;
  }
  say(type: string, data: unknown = {}): void {
    this.dispatchEvent(Object.assign(new Event(type), { data: JSON.stringify(data) }));
  }
  refuse(): void {
    this.readyState = FakeStream.CLOSED;
    this.dispatchEvent(new Event('error'));
  }
}
const open = () => FakeStream.all.filter(({ readyState }) => readyState !== FakeStream.CLOSED);
const last = () => FakeStream.all.at(-1)!;

let news: typeof NewsModule;
beforeEach(async () => {
  jest.useFakeTimers();
  FakeStream.all = [];
  (globalThis as { EventSource?: unknown }).EventSource = FakeStream;
  jest.resetModules();
  news = await import('./news');
});
afterEach(() => {
  jest.useRealTimers();
  delete (globalThis as { EventSource?: unknown }).EventSource;
});

describe('news from the server', () => {
  it('come by one stream, however often somebody begins and stops to listen', () => {
    for (let i = 0; i < 40; i++) {
      const stop = news.onNews(() => {});
      jest.advanceTimersByTime(500);
      if (i % 20 === 0) last().say('alive');
      stop();
    }
    expect(FakeStream.all).toHaveLength(1);
    jest.advanceTimersByTime(70_000);
    expect(open()).toHaveLength(0);
  });
  it('are asked for again after a refusal and after silence, and who shows something is told to look again', () => {
    const heard: string[] = [];
    news.onNews(
      ({ id }) => heard.push(id),
      () => heard.push('missed'),
    );
    last().say('ready');
    last().say('news', [{ topic: 'job', id: 'one' }]);
    last().refuse();
    jest.advanceTimersByTime(600);
    expect(FakeStream.all).toHaveLength(2);
    last().say('ready');
    last().say('news', [{ topic: 'job', id: 'two' }]);
    expect(heard).toEqual(['one', 'missed', 'two']);
    // Nothing is said for longer than a server is silent.
    jest.advanceTimersByTime(42_000);
    expect(FakeStream.all).toHaveLength(3);
    expect(open()).toHaveLength(1);
  });
  it('a server that stays away is asked less and less often', () => {
    news.onNews(() => {});
    for (let seconds = 0; seconds < 300; seconds++) {
      if (last().readyState !== FakeStream.CLOSED) last().refuse();
      jest.advanceTimersByTime(1000);
    }
    expect(FakeStream.all.length).toBeLessThan(20);
    expect(FakeStream.all.length).toBeGreaterThan(8);
  });
  it('of a file end a wait, as does time', async () => {
    const wait = news.nextNewsOfMedia('abc');
    last().say('news', [{ topic: 'media', id: 'abc' }]);
    await wait;
    const long = news.nextNewsOfMedia('abc');
    jest.advanceTimersByTime(2500);
    await long;
  });
});

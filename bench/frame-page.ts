import { readFileSync } from 'node:fs';
import { createServer } from 'node:http';
import { extname, join } from 'node:path';
import type { Page } from '@playwright/test';
import type { Piece } from '@core/piece';
import { assets } from '../server/platform/config';
import { HEADLESS } from './headless';

/** The app's frame page in Chromium, with a stand-in for the API answers it needs: what is timed is the page alone. */

const TYPES: Readonly<Record<string, string>> = {
  '.html': 'text/html',
  '.js': 'text/javascript',
  '.css': 'text/css',
  '.json': 'application/json',
  '.wasm': 'application/wasm',
  '.svg': 'image/svg+xml',
};

/** What the page is told: a piece, what was found in its music, and the files of its media by hash. */
interface Told {
  readonly piece: Piece;
  readonly analysis: unknown;
  readonly files: Readonly<Record<string, string>>;
}

async function withFramePage<T>(
  { piece, analysis, files }: Told,
  work: (page: Page, address: string) => Promise<T>,
): Promise<T> {
  const { chromium } = await import('@playwright/test');
  const server = createServer((request, response) => {
    const path = new URL(request.url ?? '/', 'http://bench').pathname;
    const send = (body: string | Buffer, type: string) => response.writeHead(200, { 'content-type': type }).end(body);
    if (path.startsWith('/api/pieces/'))
      return send(JSON.stringify({ piece, revision: 1, updatedAt: '' }), 'application/json');
    const hash = path.startsWith('/api/media/') ? path.split('/')[3] : undefined;
    if (hash !== undefined && path.endsWith('/analysis')) return send(JSON.stringify(analysis), 'application/json');
    const file =
      hash !== undefined
        ? (files[hash] ?? '')
        : path.startsWith('/fonts/')
          ? join(assets.fontsDir, path.slice(7))
          : extname(path)
            ? join(assets.webDir, path)
            : join(assets.webDir, 'index.html');
    try {
      send(readFileSync(file), TYPES[extname(file)] ?? 'application/octet-stream');
    } catch {
      response.writeHead(404).end();
    }
  });
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
  const address = server.address();
  const port = typeof address === 'object' && address ? address.port : 0;
  const browser = await chromium.launch({
    executablePath: HEADLESS,
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-sync', '--no-first-run'],
  });
  try {
    return await work(
      await browser.newPage({ viewport: { width: 1920, height: 1080 } }),
      `http://127.0.0.1:${port}/frame/x`,
    );
  } finally {
    await browser.close();
    server.close();
  }
}

/** Screenshots a second of the page, frame by frame. */
export const screenshotRate = (told: Told, times: readonly number[], dir: string): Promise<number> =>
  withFramePage(told, async (page, address) => {
    const shoot = async (t: number) => {
      // The route changes within the page, so that loading the app is not counted.
      await page.evaluate(
        `history.pushState(null, '', '/frame/x?at=${t}&format=wide'); dispatchEvent(new PopStateEvent('popstate', { state: null }))`,
      );
      await page.waitForFunction(`document.querySelector('canvas')?.dataset.at === '${t}'`);
      await page.screenshot({ path: join(dir, 'shot.png') });
    };
    await page.goto(`${address}?at=0&format=wide`);
    await page.waitForFunction(`document.querySelector('canvas')?.dataset.state === 'painted'`);
    const start = performance.now();
    for (const t of times) await shoot(t);
    return (times.length * 1000) / (performance.now() - start);
  });

/** Frames a second that the browser paints as a preview of 1280 pixels a side, over the first seconds of a piece. */
export const previewRate = (told: Told, formatId: string, seconds: number): Promise<number> =>
  withFramePage(told, async (page, address) => {
    await page.goto(`${address}?at=0&format=${formatId}&measure=${seconds}`);
    await page.waitForFunction(`document.querySelector('canvas')?.dataset.state === 'painted'`, undefined, {
      timeout: 300_000,
    });
    return Number(await page.evaluate(`document.querySelector('canvas').dataset.rate`));
  });

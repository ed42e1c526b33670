import { spawn } from 'node:child_process';
import type { ChildProcess } from 'node:child_process';
import { z } from 'zod';
import { Cancelled } from './errors';

const probeSchema = z.object({
  streams: z.array(z.object({ codec_type: z.string().optional(), codec_name: z.string().optional(), width: z.number().optional(), height: z.number().optional(), duration: z.string().optional(), disposition: z.object({ attached_pic: z.number().optional() }).optional() })).default([]),
  format: z.object({ format_name: z.string().optional(), duration: z.string().optional(), size: z.string().optional() }).default({}),
});
export type Probe = z.infer<typeof probeSchema>;

/** Runs a program and gathers what it prints. Rejects with the last lines of its errors if it fails. */
export function runProgram(command: string, args: readonly string[], options: { onChild?: (child: ChildProcess) => void; maxBytes?: number } = {}): Promise<Buffer> {
  return new Promise((resolve, reject) => {
    const child = spawn(command, args, { stdio: ['ignore', 'pipe', 'pipe'] });
    options.onChild?.(child);
    const out: Buffer[] = [];
    let size = 0;
    let errors = '';
    child.stdout.on('data', (data: Buffer) => {
      size += data.length;
      if (options.maxBytes !== undefined && size > options.maxBytes) child.kill('SIGKILL');
      else out.push(data);
    });
    child.stderr.on('data', (data: Buffer) => {
      errors = (errors + data.toString()).slice(-4000);
    });
    child.on('error', reject);
    child.on('close', (status) => (status === 0 ? resolve(Buffer.concat(out)) : reject(new Error(`${command} failed: ${errors.trim().split('\n').slice(-3).join(' / ')}`))));
  });
}

/** Facts about a media file; null if ffprobe cannot make anything of it. */
export async function probe(file: string): Promise<Probe | null> {
  try {
    const out = await runProgram('ffprobe', ['-v', 'error', '-print_format', 'json', '-show_format', '-show_streams', file]);
    return probeSchema.parse(JSON.parse(out.toString()));
  } catch {
    return null;
  }
}

/**
 * Decodes the first sound stream to mono float PCM. Reading stops at `maxSeconds`. A damaged tail ends the sound early
 * and is no error; no sound at all rejects.
 */
export function decodeMono(file: string, sampleRate: number, options: { maxSeconds: number; signal?: AbortSignal; onSeconds?: (seconds: number) => void }): Promise<Float32Array> {
  return new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', ['-v', 'error', '-nostdin', '-i', file, '-map', '0:a:0', '-t', String(options.maxSeconds), '-ac', '1', '-ar', String(sampleRate), '-f', 'f32le', '-'], { stdio: ['ignore', 'pipe', 'pipe'] });
    const chunks: Buffer[] = [];
    let bytes = 0;
    let errors = '';
    const stop = () => child.kill('SIGKILL');
    options.signal?.addEventListener('abort', stop, { once: true });
    child.stdout.on('data', (data: Buffer) => {
      chunks.push(data);
      bytes += data.length;
      options.onSeconds?.(bytes / 4 / sampleRate);
    });
    child.stderr.on('data', (data: Buffer) => {
      errors = (errors + data.toString()).slice(-2000);
    });
    child.on('error', reject);
    child.on('close', () => {
      options.signal?.removeEventListener('abort', stop);
      if (options.signal?.aborted) return reject(new Cancelled());
      const count = Math.floor(bytes / 4);
      if (count === 0) return reject(new Error(`no sound could be decoded: ${errors.trim().split('\n').pop() ?? ''}`));
      const samples = new Float32Array(count);
      const view = Buffer.from(samples.buffer);
      let at = 0;
      for (const chunk of chunks) {
        at += chunk.copy(view, at, 0, Math.min(chunk.length, view.length - at));
      }
      resolve(samples);
    });
  });
}

/** Decodes the first sound stream to interleaved float PCM, handed over in chunks of whole frames. */
export function decodeStream(file: string, options: { sampleRate: number; channels: number; signal?: AbortSignal; onSamples: (samples: Float32Array) => void }): Promise<void> {
  const { sampleRate, channels, signal, onSamples } = options;
  return new Promise((resolve, reject) => {
    const child = spawn('ffmpeg', ['-v', 'error', '-nostdin', '-i', file, '-map', '0:a:0', '-ac', String(channels), '-ar', String(sampleRate), '-f', 'f32le', '-'], { stdio: ['ignore', 'pipe', 'pipe'] });
    const frame = 4 * channels;
    let rest: Buffer = Buffer.alloc(0);
    let errors = '';
    const stop = () => child.kill('SIGKILL');
    signal?.addEventListener('abort', stop, { once: true });
    child.stdout.on('data', (data: Buffer) => {
      const all = rest.length > 0 ? Buffer.concat([rest, data]) : data;
      const whole = all.length - (all.length % frame);
      // Copied, because a chunk may start at any byte and floats may not.
      const bytes = new Uint8Array(whole);
      bytes.set(all.subarray(0, whole));
      onSamples(new Float32Array(bytes.buffer));
      rest = all.subarray(whole);
    });
    child.stderr.on('data', (data: Buffer) => {
      errors = (errors + data.toString()).slice(-2000);
    });
    child.on('error', reject);
    child.on('close', (status) => {
      signal?.removeEventListener('abort', stop);
      if (signal?.aborted) reject(new Cancelled());
      else if (status === 0) resolve();
      else reject(new Error(`the sound could not be decoded: ${errors.trim().split('\n').pop() ?? ''}`));
    });
  });
}

/**
 * Fits how sure each beat is (core/audio/beat-confidence.ts) to the beat kit, the made songs and sounds without a beat: npm
 * run fit:confidence. Prints weights to be put there, and, cross-validated by family, how often beats of each stated
 * confidence are right, and how well the mean tells music from sounds without a beat.
 */
import { CONFIDENCE_FACTS, confidenceFacts, findBeats, songFeatures } from '@core/audio';
import { noBeatSounds } from './made/no-beat';
import { MATCH_WINDOW } from './match-beats';
import { familyOf, featuresOf, isVariant, songFiles } from './song-files';

const FOLDS = 6;
const ROUNDS = 20;
const PENALTY = 1e-4;

interface Judged {
  readonly family: string;
  readonly hasBeat: boolean;
  readonly facts: readonly (readonly number[])[];
  readonly right: readonly boolean[];
}

const songs: Judged[] = [];
for (const file of songFiles().filter((f) => !isVariant(f.truth.name))) {
  const features = await featuresOf(file);
  const found = findBeats(features);
  const { beats } = file.truth;
  songs.push({
    family: familyOf(file),
    hasBeat: true,
    facts: confidenceFacts(found, features),
    right: found.beats.map((t) => beats.some((b) => Math.abs(b - t) <= MATCH_WINDOW)),
  });
}
for (const { name, samples } of noBeatSounds(4)) {
  const features = songFeatures(samples());
  const found = findBeats(features);
  songs.push({
    family: name,
    hasBeat: false,
    facts: confidenceFacts(found, features),
    right: found.beats.map(() => false),
  });
}

const chance = (facts: readonly number[], weights: readonly number[]): number =>
  1 / (1 + Math.exp(-facts.reduce((sum, x, k) => sum + x * weights[k]!, 0)));

/** Logistic regression by Newton's method; each song counts alike, however many beats it has. */
function fit(of: readonly Judged[]): number[] {
  const n = CONFIDENCE_FACTS.length;
  const w = new Array<number>(n).fill(0);
  for (let round = 0; round < ROUNDS; round++) {
    const m = Array.from({ length: n }, (_, r) =>
      Array.from({ length: n + 1 }, (_, c) => (r === c ? PENALTY : 0) as number),
    );
    for (let k = 0; k < n; k++) m[k]![n] = -PENALTY * w[k]!;
    for (const { facts, right } of of)
      facts.forEach((x, i) => {
        const p = chance(x, w);
        const share = 1 / (of.length * facts.length);
        for (let r = 0; r < n; r++) {
          m[r]![n]! += share * (+right[i]! - p) * x[r]!;
          for (let c = 0; c < n; c++) m[r]![c]! += share * p * (1 - p) * x[r]! * x[c]!;
        }
      });
    for (let r = 0; r < n; r++) {
      for (let k = 0; k < n; k++) {
        if (k === r) continue;
        const f = m[k]![r]! / m[r]![r]!;
        for (let c = r; c <= n; c++) m[k]![c]! -= f * m[r]![c]!;
      }
    }
    for (let k = 0; k < n; k++) w[k]! += Math.max(-2, Math.min(2, m[k]![n]! / m[k]![k]!));
  }
  return w;
}

const families = [...new Set(songs.map((s) => s.family))].sort();
const foldOf = (s: Judged): number => families.indexOf(s.family) % FOLDS;
const byFold = Array.from({ length: FOLDS }, (_, fold) => fit(songs.filter((s) => foldOf(s) !== fold)));
const bins = Array.from({ length: 10 }, () => ({ stated: 0, right: 0, count: 0 }));
const means: { mean: number; hasBeat: boolean; family: string }[] = [];
for (const s of songs) {
  const stated = s.facts.map((x) => chance(x, byFold[foldOf(s)]!));
  means.push({
    mean: stated.reduce((a, b) => a + b, 0) / Math.max(1, stated.length),
    hasBeat: s.hasBeat,
    family: s.family,
  });
  stated.forEach((p, i) => {
    const bin = bins[Math.min(9, Math.floor(p * 10))]!;
    bin.stated += p;
    bin.right += +s.right[i]!;
    bin.count++;
  });
}
console.log('| stated | right | beats |\n|---|---|---|');
for (const { stated, right, count } of bins)
  if (count > 0) console.log(`| ${(stated / count).toFixed(2)} | ${(right / count).toFixed(2)} | ${count} |`);
const [music, none] = [means.filter((m) => m.hasBeat), means.filter((m) => !m.hasBeat)];
const pairs = music.flatMap((a) => none.map((b) => (a.mean > b.mean ? 1 : a.mean === b.mean ? 0.5 : 0)));
console.log(
  `music over sounds without a beat (AUC): ${(pairs.reduce((a: number, b) => a + b, 0) / pairs.length).toFixed(4)}`,
);
for (const cut of [0.3, 0.35, 0.4, 0.45, 0.5])
  console.log(
    `below ${cut}: ${none.filter((m) => m.mean < cut).length} of ${none.length} without, ${music.filter((m) => m.mean < cut).length} of ${music.length} music`,
  );
const listed = (of: readonly (typeof means)[number][]): string =>
  of.map((m) => `${m.family} ${m.mean.toFixed(2)}`).join(', ');
console.log('highest without:', listed(none.sort((a, b) => b.mean - a.mean).slice(0, 4)));
console.log('lowest music:', listed(music.sort((a, b) => a.mean - b.mean).slice(0, 5)));
const weights = fit(songs);
CONFIDENCE_FACTS.forEach((fact, k) => console.log(`  ${fact}: ${weights[k]!.toFixed(3)},`));

/** Prints the tests that took longest: node scripts/slowest-tests.mjs JEST.json PLAYWRIGHT.json. */
import { readFileSync } from 'node:fs';

const TOLD = 15;

const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null; // a suite that did not run is told by its failure
  }
};
const ofJest = (report) =>
  (report?.testResults ?? []).flatMap(({ name, assertionResults }) =>
    assertionResults.map(({ fullName, duration }) => ({ ms: duration ?? 0, name: `${short(name)}: ${fullName}` })),
  );
const ofPlaywright = (suites, file = '') =>
  (suites ?? []).flatMap((suite) => [
    ...(suite.specs ?? []).map((spec) => ({
      ms: spec.tests.reduce((sum, test) => sum + test.results.reduce((all, { duration }) => all + duration, 0), 0),
      name: `e2e/${suite.file ?? file}: ${spec.title}`,
    })),
    ...ofPlaywright(suite.suites, suite.file ?? file),
  ]);
const short = (file) => file.replace(`${process.cwd()}/`, '');

const [jest, playwright] = process.argv.slice(2).map(read);
const all = [...ofJest(jest), ...ofPlaywright(playwright?.suites)].sort((a, b) => b.ms - a.ms);
console.log(`The ${TOLD} slowest of ${all.length} tests:`);
for (const { ms, name } of all.slice(0, TOLD)) console.log(`${(ms / 1000).toFixed(1).padStart(7)} s  ${name}`);

// The slowest test files, by the reports that the runners have written.
import { readFileSync } from 'node:fs';

const report = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    return null;
  }
};

/** Seconds by file of Jest's report. */
export const unitTimes = (file) =>
  (report(file)?.testResults ?? []).map((t) => ({ name: t.name.replace(`${process.cwd()}/`, ''), seconds: (t.endTime - t.startTime) / 1000 }));

/** Seconds by file of Playwright's report, both sizes together. */
export function browserTimes(file) {
  const times = new Map();
  const visit = (suite) => {
    for (const spec of suite.specs ?? [])
      for (const test of spec.tests) for (const run of test.results) times.set(spec.file, (times.get(spec.file) ?? 0) + run.duration / 1000);
    (suite.suites ?? []).forEach(visit);
  };
  (report(file)?.suites ?? []).forEach(visit);
  return [...times].map(([name, seconds]) => ({ name: `e2e/${name}`, seconds }));
}

export function printSlowest(times, most = 10) {
  console.log('\nThe ten slowest files:');
  for (const { name, seconds } of times.sort((a, b) => b.seconds - a.seconds).slice(0, most))
    console.log(`${seconds.toFixed(1).padStart(7)} s  ${name}`);
}

// npm run faults: damaged files, odd recipes and requests, kills, a damaged store. Ends with one table: tried, held, lost.
// --short is what npm test runs; --only=NAME runs one part; --seed=N makes the same faults again.
import { numbers } from '../src/testing/machine';
import { picturesOnCommandLine } from './pictures';
import { served } from './browser';
import { browserKills, workerKills } from './kills';
import { missingFiles, picturesInPage, withoutIsolation } from './page';
import { clearedStore, damagedStore, fullStore, twoTabs } from './store';
import { oddPacks, oddRecipes } from './recipes';
import { damagedMetadata } from './metadata';
import { damagedZips } from './zips';
import { oddRequests } from './requests';
import type { Tally } from './tally';

const argument = (name: string) => process.argv.find((a) => a.startsWith(`--${name}=`))?.split('=')[1];
const isShort = process.argv.includes('--short');
const only = argument('only');
const seed = Number(argument('seed') ?? Date.now() % 1_000_000);
const random = numbers(seed);
const root = process.env.DERMATEX_ROOT ?? process.cwd();
const count = (whole: number, short: number) => (isShort ? short : whole);
/** The short cut leaves these to the browser tests. */
const inWhole = (run: () => Promise<Tally | Tally[]>) => (): Promise<Tally | Tally[]> => (isShort ? Promise.resolve([]) : served(run));

const parts: Record<string, () => Promise<Tally | Tally[]>> = {
  pictures: () => picturesOnCommandLine(count(300, 60), random),
  packs: () => oddPacks(count(75, 75), random),
  zips: () => damagedZips(count(300, 60), random),
  metadata: () => damagedMetadata(count(600, 120), random),
  requests: () => oddRequests(count(400, 200), random, root),
  recipes: () => oddRecipes(count(300, 25), random, root),
  'pictures-in-page': () => served(() => picturesInPage(count(300, 40), random)),
  'missing-files': inWhole(missingFiles),
  'worker-kills': () => served(() => workerKills(count(Number(argument('kills') ?? 50), 2), random)),
  'browser-kills': () => served(() => browserKills(count(Number(argument('kills') ?? 200), 3), random)),
  'full-store': inWhole(() => fullStore(10, random)),
  'two-tabs': inWhole(() => twoTabs(70, random)),
  'cleared-store': inWhole(() => clearedStore(10)),
  'without-isolation': inWhole(withoutIsolation),
  'damaged-store': inWhole(damagedStore),
};

console.log(`Faults by seed ${seed}${isShort ? ', the short cut' : ''}`);
const tallies: Tally[] = [];
for (const [name, run] of Object.entries(parts)) {
  if (only && only !== name) continue;
  const start = Date.now();
  tallies.push(...[await run()].flat());
  console.log(`  ${name}, ${((Date.now() - start) / 1000).toFixed(0)} s`);
}
const wide = Math.max(...tallies.map((t) => t.name.length));
console.log(`\n${''.padEnd(wide)}  tried   held   lost`);
for (const { name, tried, held, lost } of tallies)
  console.log(`${name.padEnd(wide)} ${String(tried).padStart(6)} ${String(held).padStart(6)} ${String(lost.length).padStart(6)}`);
for (const { name, lost } of tallies) for (const line of lost.slice(0, 12)) console.log(`  LOST  ${name}: ${line}`);
process.exit(tallies.some((t) => t.lost.length > 0) ? 1 : 0);

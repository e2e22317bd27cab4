/** Milliseconds that a fixed piece of arithmetic takes: how busy the machine is beside a timing. */
export function spin(): number {
  const start = performance.now();
  let x = 1;
  for (let i = 0; i < 2e7; i++) x = (Math.imul(x, 1664525) + 1013904223) | 0;
  return x === 42 ? 0 : performance.now() - start;
}

export async function timed<T>(work: () => Promise<T>, rounds = 3): Promise<{ best: number; median: number; probe: number }> {
  const times: number[] = [];
  let probe = Infinity;
  for (let i = 0; i < rounds; i++) {
    probe = Math.min(probe, spin());
    const start = performance.now();
    await work();
    times.push(performance.now() - start);
  }
  times.sort((a, b) => a - b);
  return { best: times[0], median: times[Math.floor(times.length / 2)], probe };
}

export const line = (what: string, value: string, probe: number) =>
  console.log(`${what.padEnd(58)} ${value.padStart(18)}   (probe ${probe.toFixed(0)} ms)`);

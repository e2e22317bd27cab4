/** Milliseconds that a fixed piece of arithmetic takes: how busy the machine is beside a timing. */
export function spin() {
  const start = performance.now();
  let x = 1;
  for (let i = 0; i < 2e7; i++) x = (Math.imul(x, 1664525) + 1013904223) | 0;
  return x === 42 ? 0 : performance.now() - start;
}

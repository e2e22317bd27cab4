import { controlsOf } from '../core/schema';

/** Values within what the panel of a schema offers, its ends among them, made up by chance; some are left as they are. */
export function panelValues(schema: Parameters<typeof controlsOf>[0], random: () => number, skip: readonly string[] = []): Record<string, unknown> {
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)];
  const out: Record<string, unknown> = {};
  for (const { key, meta } of controlsOf(schema)) {
    if (skip.includes(key) || random() < 0.35) continue;
    const { min = 0, max = 1 } = meta;
    if (meta.control === 'slider') out[key] = random() < 0.3 ? pick([min, max]) : min + (max - min) * random();
    else if (meta.control === 'choice') out[key] = pick(meta.choices ?? []).value;
    else if (meta.control === 'toggle') out[key] = random() < 0.5;
    else if (meta.control === 'colour') out[key] = pick(['#a04020', '#204060', '#e0d0b0']);
  }
  return 'levels' in out ? { ...out, levels: Math.round(out.levels as number) } : out;
}

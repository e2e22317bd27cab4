import { materialById } from '../materials';
import { controlsOf } from '../schema';
import type { Coat } from '../piece/schema';
import { defineFirst } from './control';

const sourceOf = (coat: Coat) => coat.source as unknown as { id: string; params: Record<string, unknown> };

/** One of the material's own parameters. */
export default defineFirst({
  control: 'parameter',
  shape: 'parameter',
  label: ({ key }) => key,
  help: '',
  begins: 1,
  read(coat, { key }) {
    const { id, params } = sourceOf(coat);
    const own = controlsOf(materialById(id).params).find((c) => c.key === key)?.neutral;
    return (params[key] ?? own ?? null) as number | string | null;
  },
  write: (coat, { key }, value) => ({ source: { ...coat.source, params: { ...sourceOf(coat).params, [key]: value } } as Coat['source'] }),
});

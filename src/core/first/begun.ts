import { materialById } from '../materials';
import type { Coat } from '../piece/schema';
import { firstOf, plainStart, withFirst } from '.';

/** A coat of a material as that begins: its mode, strength, steps, size and parameters where none are given, with the first controls that are on. */
export function begun(coat: Coat): Coat {
  const source = coat.source as unknown as { id: string; params: Record<string, unknown> };
  const { params, scale, limits, guardAmounts, first = {} } = materialById(source.id).start ?? {};
  const plain: Coat = {
    ...coat,
    ...plainStart(coat),
    source: { ...source, params: { ...params, ...source.params } } as unknown as Coat['source'],
    ...(scale ? { lay: { ...coat.lay, scale } } : {}),
    ...(limits ? { limits } : {}),
    ...(guardAmounts ? { guardAmounts } : {}),
  };
  return firstOf(coat).reduce((now, spec) => {
    const amount = spec.control === 'only' || spec.control === 'raised' ? first[spec.control] : undefined;
    return amount === undefined ? now : withFirst(now, spec, amount);
  }, plain);
}

import { useEffect, useMemo, useState } from 'react';
import { families, materials, type Material } from '@/core/materials';
import { isFoundBy } from '@/core/search';
import type { SourceInput } from '@/core/piece/edits';
import { complain } from '@/store/notices';
import { labelOf, sourceOf, useOwn } from '@/store/own';
import { useShelf } from '@/store/shelf';
import type { OwnMaterial } from '@/store/storage';

export interface Entry {
  id: string;
  label: string;
  family: string;
  /** What it is found by. */
  words: (string | undefined)[];
  source: SourceInput;
  own?: OwnMaterial;
}

const familyLabel = new Map<string, string>(families.map((f) => [f.id, f.label]));

/** Words of the trade by which a family is found. */
const ALSO: Partial<Record<string, string>> = {
  paper: 'old aged vintage antique',
  cloth: 'canvas fabric painterly',
  masonry: 'grunge wall old',
  wood: 'grunge board old rust',
  cracks: 'grunge old cracked aged',
  wear: 'grunge dust scratches old vintage film distressed',
  air: 'light leak glow mist bokeh overlay',
  brush: 'paint painterly artistic',
  edges: 'border frame vignette old',
};

const made: Entry[] = materials.map((m: Material) => ({
  id: m.id,
  label: m.label,
  family: m.family,
  words: [m.label, m.help, familyLabel.get(m.family), ALSO[m.family]],
  source: { kind: 'material', id: m.id, seed: 1, params: {} },
}));

const ownEntry = (own: OwnMaterial, label: string): Entry => ({
  id: own.key,
  label,
  family: own.family ?? 'own',
  words: [label, own.maker, familyLabel.get(own.family ?? ''), 'your own'],
  source: sourceOf(own),
  own,
});

export interface Group {
  id: string;
  label: string;
  entries: Entry[];
  /** Said after a card's name, where the same card stands in its family too. */
  also?: string;
}

/** The shelf in groups: favourites and what was used last, own pictures, then the families; or what a word finds. */
export function useGroups(find: string): Group[] {
  // As it was when the shelf was opened, so that cards stay in place while one after another is tried.
  const [recent, setRecent] = useState<string[]>([]);
  useEffect(() => {
    const { refresh } = useShelf.getState();
    void refresh().then(() => setRecent(useShelf.getState().recent), complain);
  }, []);
  const own = useOwn((s) => s.list);
  const favourites = useShelf((s) => s.favourites);
  return useMemo(() => {
    const all = [...own.map((o) => ownEntry(o, labelOf(o))), ...made];
    const found = all.filter((e) => isFoundBy(e.words, find));
    const byId = new Map(all.map((e) => [e.id, e]));
    const pick = (ids: string[]) => ids.flatMap((id) => byId.get(id) ?? []);
    const groups: Group[] =
      find.trim() !== ''
        ? []
        : [
            { id: 'favourites', label: 'Favourites', entries: pick(favourites), also: 'favourite' },
            { id: 'recent', label: 'Used lately', entries: pick(recent), also: 'used lately' },
          ];
    groups.push({ id: 'own', label: 'Your own', entries: found.filter((e) => e.family === 'own') });
    for (const f of families) groups.push({ id: f.id, label: f.label, entries: found.filter((e) => e.family === f.id) });
    return groups.filter((g) => g.entries.length > 0);
  }, [own, favourites, recent, find]);
}

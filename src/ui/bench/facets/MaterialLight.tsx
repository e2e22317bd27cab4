import type { MaterialLight as Light } from '@/core/materials/sheetLight';
import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import { materialLightSchema } from '@/core/sources/material';
import { panelEdit } from '@/store/editing';
import { lampOnMaterial } from '@/store/light';
import { Fold } from '../../kit/Fold';
import { Panel } from '../../kit/Panel';
import { words } from '../../words';
import { MatchLight } from './MatchLight';

/** The light of a coat's material, as it is or as it is when nothing is said about it. */
export const lightOf = (coat: Coat): Light => materialLightSchema.parse((coat.source as { light?: Light }).light ?? {});

/** Lights a coat's material. */
export const setLight = (coat: Coat, change: Partial<Light>) =>
  exchangeSource(coat.id, { ...(coat.source as unknown as SourceInput), light: { ...lightOf(coat), ...change } });

/** Where the light on a made material comes from: it stays there when the material is turned. */
export function MaterialLight({ coat }: { coat: Coat }) {
  const light = lightOf(coat);
  const run = `${coat.id}.light`;
  return (
    <Fold title={words.material.light} changed={light.from !== 'own'}>
      <Panel
        schema={materialLightSchema}
        values={{ ...light }}
        {...panelEdit(
          (key, value) => setLight(coat, { [key]: value }),
          (label) => label,
          run,
        )}
      />
      <MatchLight of={run} label={words.material.light} lightBy={(lamp) => setLight(coat, lampOnMaterial(lamp))} />
    </Fold>
  );
}

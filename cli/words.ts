import { modes } from '../src/core/blend';
import { firstControl } from '../src/core/first';
import { regions } from '../src/core/guards/schema';
import { guardChoices } from '../src/core/guards/choices';
import { lookFamilies, shippedLooks } from '../src/core/looks';
import { maskParts } from '../src/core/mask';
import { families, materials } from '../src/core/materials';
import { wholeMaskFields } from '../src/core/piece/schema';
import { readySteps } from '../src/core/ready/steps';
import { controlsOf } from '../src/core/schema';
import { sources } from '../src/core/sources';
import { treatments } from '../src/core/treatments';
import { words as storeWords } from '../src/store/words';
import { words as screenWords } from '../src/ui/words';
import * as z from 'zod';

/** Lines of one section: a label, and what is said of it. */
type Line = [label: string, says?: string];

const ofSchema = (schema: z.ZodObject): Line[] =>
  controlsOf(schema).flatMap(({ meta }): Line[] => [[meta.label, meta.help], ...(meta.choices ?? []).map(({ label }): Line => [`  ${label}`])]);

/** A sentence of the screens; what is put into it is shown by the names of its parameters, in braces. */
const sentence = (said: unknown): string =>
  typeof said === 'function'
    ? String(
        (said as (...args: string[]) => string)(...(/\(([^)]*)\)/.exec(said.toString())?.[1] ?? '').split(',').map((name) => `{${name.trim()}}`)),
      )
    : String(said);

/** Prints every string of the screens, and every label and help text that the registries carry, to be read in one go. */
export function words(): void {
  const say = (title: string, lines: readonly Line[]) => {
    console.log(`\n${title}`);
    for (const [label, says] of lines) console.log(`  ${label}${says ? `: ${says}` : ''}`);
  };
  for (const [where, table] of [
    ['Screens', screenWords],
    ['Notices and steps', storeWords],
  ] as const)
    for (const [area, list] of Object.entries<Record<string, unknown>>(table))
      say(
        `${where}: ${area}`,
        Object.values(list).map((said): Line => [sentence(said)]),
      );
  say(
    'Blend modes',
    modes.map(({ label, help }) => [label, help]),
  );
  for (const source of sources)
    say(`Coat: ${source.label}`, [...(source.offers ?? []).map(({ label, says }): Line => [label, says]), ...ofSchema(source.schema)]);
  for (const treatment of treatments) say(`Effect: ${treatment.label}`, ofSchema(treatment.schema));
  for (const part of maskParts) say(`Mask: ${part.label}`, ofSchema(part.schema));
  say('Mask: the whole', ofSchema(z.object(wholeMaskFields)));
  for (const step of Object.values(readySteps)) say(`Photo: ${step.label}`, 'controls' in step ? ofSchema(step.controls as z.ZodObject) : []);
  say('Guards', [...guardChoices.map(({ label }): Line => [label]), ...regions.map(({ label }): Line => [label])]);
  for (const { id, label } of families) {
    for (const material of materials.filter((m) => m.family === id)) {
      const first = (material.first ?? []).filter((spec) => spec.control !== 'parameter');
      say(`${label}: ${material.label}`, [
        ['', material.help],
        ...first.map((spec): Line => [firstControl(spec).label(spec), firstControl(spec).help]),
        ...ofSchema(material.params),
      ]);
    }
  }
  for (const { id, label } of lookFamilies)
    say(
      `Looks: ${label}`,
      shippedLooks.filter((l) => l.family === id).map((l): Line => [l.recipe.name]),
    );
}

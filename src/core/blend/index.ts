import { cut } from '../cut';
import color from './modes/color';
import colorBurn from './modes/color-burn';
import colorDodge from './modes/color-dodge';
import darken from './modes/darken';
import difference from './modes/difference';
import divide from './modes/divide';
import exclusion from './modes/exclusion';
import fold from './modes/fold';
import hardLight from './modes/hard-light';
import hardStep from './modes/hard-step';
import hue from './modes/hue';
import lighten from './modes/lighten';
import linearBurn from './modes/linear-burn';
import linearDodge from './modes/linear-dodge';
import linearLight from './modes/linear-light';
import luminosity from './modes/luminosity';
import multiply from './modes/multiply';
import normal from './modes/normal';
import overlay from './modes/overlay';
import pinLight from './modes/pin-light';
import plusLighter from './modes/plus-lighter';
import saturation from './modes/saturation';
import screen from './modes/screen';
import softLight from './modes/soft-light';
import subtract from './modes/subtract';
import vividLight from './modes/vivid-light';
import type { Mode } from './mode';

/** All blend modes, in the order in which they are offered: those tried first for textures lead their group. */
export const modes = [
  normal,
  multiply,
  screen,
  overlay,
  darken,
  lighten,
  colorDodge,
  colorBurn,
  hardLight,
  softLight,
  difference,
  exclusion,
  hue,
  saturation,
  color,
  luminosity,
  linearBurn,
  linearDodge,
  linearLight,
  vividLight,
  pinLight,
  subtract,
  divide,
  hardStep,
  fold,
  plusLighter,
] as const satisfies readonly Mode[];

export type BlendName = (typeof modes)[number]['id'];
export const blendNames = modes.map((m) => m.id) as [BlendName, ...BlendName[]];

const byId = new Map<string, Mode>(modes.map((m) => [m.id, m]));

/** @throws RangeError naming the mode, when there is none of that name. */
export function modeById(id: string): Mode {
  const found = byId.get(id);
  if (!found) throw new RangeError(`There is no blend mode called "${cut(id)}".`);
  return found;
}

export { modeGroups, type Mode } from './mode';

import { registry } from '../graph/operation';
import balance from './balance';
import bevel from './bevel';
import blur from './blur';
import colour from './colour';
import corners from './corners';
import curves from './curves';
import drape from './drape';
import even from './even';
import exposure from './exposure';
import fringe from './fringe';
import halo from './halo';
import hues from './hues';
import invert from './invert';
import light from './light';
import levels from './levels';
import localContrast from './local-contrast';
import localTone from './local-tone';
import monochrome from './monochrome';
import noise from './noise';
import posterise from './posterise';
import ranges from './ranges';
import relief from './relief';
import remap from './remap';
import sharpen from './sharpen';
import split from './split';
import tint from './tint';
import tone from './tone';
import dabs from './dabs';
import double from './double';
import fine from './fine';
import flow from './flow';
import focus from './focus';
import glow from './glow';
import ink from './ink';
import nudge from './nudge';
import outline from './outline';
import patches from './patches';
import pencil from './pencil';
import pigment from './pigment';
import ripple from './ripple';
import shapes from './shapes';
import smooth from './smooth';
import streaks from './streaks';
import twoTones from './two-tones';
import type { Treatment } from './treatment';

/** Every treatment a coat can carry, in the order in which panels offer them. */
export const treatments: readonly Treatment[] = [
  tone,
  remap,
  tint,
  relief,
  drape,
  nudge,
  corners,
  focus,
  light,
  split,
  invert,
  posterise,
  blur,
  sharpen,
  exposure,
  even,
  levels,
  curves,
  localContrast,
  localTone,
  balance,
  colour,
  ranges,
  hues,
  monochrome,
  noise,
  fringe,
  smooth,
  patches,
  flow,
  dabs,
  shapes,
  ink,
  pencil,
  fine,
  outline,
  bevel,
  halo,
  pigment,
  glow,
  double,
  streaks,
  ripple,
  twoTones,
];

/** @throws RangeError naming the kind, when there is no such treatment. */
export const treatmentByKind = registry(treatments, 'treatment');

export type { Treatment };

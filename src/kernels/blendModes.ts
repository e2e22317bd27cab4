// Numbers of the blend modes, in the order of core/blend.

// @ts-ignore: decorator
@inline
export const NORMAL = 0;
// @ts-ignore: decorator
@inline
export const MULTIPLY = 1;
// @ts-ignore: decorator
@inline
export const SCREEN = 2;
// @ts-ignore: decorator
@inline
export const OVERLAY = 3;
// @ts-ignore: decorator
@inline
export const DARKEN = 4;
// @ts-ignore: decorator
@inline
export const LIGHTEN = 5;
// @ts-ignore: decorator
@inline
export const COLOR_DODGE = 6;
// @ts-ignore: decorator
@inline
export const COLOR_BURN = 7;
// @ts-ignore: decorator
@inline
export const HARD_LIGHT = 8;
// @ts-ignore: decorator
@inline
export const SOFT_LIGHT = 9;
// @ts-ignore: decorator
@inline
export const DIFFERENCE = 10;
// @ts-ignore: decorator
@inline
export const EXCLUSION = 11;
// @ts-ignore: decorator
@inline
export const HUE = 12;
// @ts-ignore: decorator
@inline
export const SATURATION = 13;
// @ts-ignore: decorator
@inline
export const COLOR = 14;
// @ts-ignore: decorator
@inline
export const LUMINOSITY = 15;
// @ts-ignore: decorator
@inline
export const LINEAR_BURN = 16;
// @ts-ignore: decorator
@inline
export const LINEAR_DODGE = 17;
// @ts-ignore: decorator
@inline
export const LINEAR_LIGHT = 18;
// @ts-ignore: decorator
@inline
export const VIVID_LIGHT = 19;
// @ts-ignore: decorator
@inline
export const PIN_LIGHT = 20;
// @ts-ignore: decorator
@inline
export const SUBTRACT = 21;
// @ts-ignore: decorator
@inline
export const DIVIDE = 22;
// @ts-ignore: decorator
@inline
export const HARD_STEP = 23;
// @ts-ignore: decorator
@inline
export const FOLD = 24;
// @ts-ignore: decorator
@inline
export const PLUS_LIGHTER = 25;

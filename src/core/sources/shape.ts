import { colour, share, slider } from '../schema';

/** Controls that everything laid as a shape has: a height by its edges, and a glow around it. */
export const shapeFields = {
  relief: share('Raised', 0, { min: -1, max: 1, help: 'Edges lit as if paint stood up. Negative presses them in.' }),
  lightFrom: slider('Light from', 0, 360, 315, {
    unit: '°',
    step: 1,
    dial: true,
    idle: ({ relief }) => (relief === 0 ? 'It has an effect once the marks are raised or pressed in.' : undefined),
  }),
  glow: share('Outer glow', 0, { help: 'Colour that spreads around the marks.' }),
  glowSize: slider('Size of the glow', 2, 120, 18, { unit: 'u', step: 1, idle: withoutGlow }),
  glowColour: colour('Colour of the glow', '#fff0d0', { idle: withoutGlow }),
};

function withoutGlow({ glow }: Record<string, unknown>): string | undefined {
  return glow === 0 ? 'It has an effect once there is an outer glow.' : undefined;
}

interface Shape {
  relief: number;
  lightFrom: number;
  glow: number;
  glowSize: number;
  glowColour: string;
}

/** The treatments that draw these. */
export const shapeFinishes = ({ relief, lightFrom, glow, glowSize, glowColour }: Shape) => [
  { kind: 'bevel', amount: relief, direction: lightFrom, size: 5, shadow: 0.5 },
  { kind: 'halo', amount: glow, size: glowSize, colour: glowColour },
];

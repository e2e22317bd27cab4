import { slider, type ControlMeta } from '../schema';

/** Where a distant light stands, as all steps that are lit ask for it. */
export const lampFieldsWhere = (absent?: ControlMeta['absent']) => ({
  direction: slider('Light from', 0, 360, 315, {
    unit: '°',
    step: 1,
    dial: true,
    absent,
    help: 'Where the light comes from, clockwise from the top.',
  }),
  elevation: slider('Light’s height', 5, 85, 40, { unit: '°', step: 1, absent, help: 'Low light shows every grain, high light only the form.' }),
});
export const lampFields = lampFieldsWhere();

export interface Lamp {
  direction: number;
  elevation: number;
}

/** The unit vector to the lamp: right, down, towards the viewer. */
export function wayToLamp({ direction, elevation }: Lamp): [number, number, number] {
  const [from, up] = [(direction * Math.PI) / 180, (elevation * Math.PI) / 180];
  return [Math.sin(from) * Math.cos(up), -Math.cos(from) * Math.cos(up), Math.sin(up)];
}

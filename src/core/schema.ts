import * as z from 'zod';

/** What a panel needs to draw one control. Carried by the schema itself, so that no form is made by hand. */
export interface ControlMeta {
  control: 'slider' | 'choice' | 'toggle' | 'colour' | 'curve' | 'limits' | 'hidden';
  label: string;
  /** Shown behind the value: '%', '°', 'px' (of the photo), 'u'. */
  unit?: string;
  /** What the interface shows is value · factor. */
  factor?: number;
  step?: number;
  min?: number;
  max?: number;
  choices?: { value: string; label: string }[];
  help?: string;
  /** An angle that is best set on a dial. */
  dial?: boolean;
  /** True when the control has no place beside the values that are set. */
  absent?: (values: Record<string, unknown>) => boolean;
  /** A sentence when the control can do nothing here, given the values beside it, and whether what it works on is grey (`materialIsGrey`). */
  idle?: (values: Record<string, unknown>) => string | undefined;
}

type Extra = Partial<Omit<ControlMeta, 'control' | 'label'>> & {
  /** What is accepted, where that is more than the control offers. */
  accepts?: [number, number];
};

/** A number with its range, step, neutral value and words. Values outside what is accepted are refused, not clamped. */
export function slider(label: string, min: number, max: number, neutral: number, { accepts = [min, max], ...extra }: Extra = {}) {
  const meta: ControlMeta = { control: 'slider', label, min, max, step: (max - min) / 100, ...extra };
  return z
    .number()
    .min(accepts[0])
    .max(accepts[1])
    .default(neutral)
    .meta({ ...meta });
}

/** A share of 0 to 1, shown in percent. */
export function share(label: string, neutral: number, extra: Extra = {}) {
  return slider(label, extra.min ?? 0, extra.max ?? 1, neutral, { unit: '%', factor: 100, step: 0.01, ...extra });
}

/** A colour written #rrggbb. */
export function colour(label: string, neutral: string, { accepts: _accepts, ...extra }: Extra = {}) {
  const meta: ControlMeta = { control: 'colour', label, ...extra };
  return z
    .string()
    .regex(/^#[0-9a-fA-F]{6}$/, 'a colour is written #rrggbb')
    .default(neutral)
    .meta({ ...meta });
}

export function toggle(label: string, neutral: boolean, { accepts: _accepts, ...extra }: Extra = {}) {
  const meta: ControlMeta = { control: 'toggle', label, ...extra };
  return z
    .boolean()
    .default(neutral)
    .meta({ ...meta });
}

export function choice<const T extends string>(
  label: string,
  options: readonly { value: T; label: string }[],
  neutral: T,
  { accepts: _accepts, ...extra }: Extra = {},
) {
  const meta: ControlMeta = { control: 'choice', label, choices: [...options], ...extra };
  const values = options.map((o) => o.value) as [T, ...T[]];
  // The cast keeps the default's type exact; zod would widen it to a NoUndefined wrapper.
  return z
    .enum(values)
    .default(neutral as never)
    .meta({ ...meta });
}

/** Points of a curve over 0..1, x rising; a straight line to begin with. */
export function curve(label: string, extra: Extra = {}) {
  const meta: ControlMeta = { control: 'curve', label, ...extra };
  const number = z.number().min(0).max(1);
  return z
    .array(z.tuple([number, number]))
    .min(2)
    .max(16)
    .refine((points) => points.every(([x], i) => i === 0 || x > points[i - 1][0]), 'points of a curve must rise from left to right')
    .default([
      [0, 0],
      [1, 1],
    ])
    .meta({ ...meta });
}

/** Four rising places from dark to light: nothing up to the first, all from the second to the third, nothing from the fourth. */
export function limits(label: string, neutral: [number, number, number, number]) {
  const meta: ControlMeta = { control: 'limits', label };
  const number = z.number().min(0).max(1);
  return z
    .tuple([number, number, number, number])
    .refine(([b0, b1, w0, w1]) => b0 <= b1 && b1 <= w0 && w0 <= w1, 'limits must rise from left to right')
    .default(neutral)
    .meta({ ...meta });
}

export interface ControlEntry {
  key: string;
  meta: ControlMeta;
  neutral: unknown;
}

/** The controls of an object schema, in the order of its fields; fields without words are left out. */
export function controlsOf(schema: z.ZodObject): ControlEntry[] {
  const kind = schema.shape.kind;
  const neutral = schema.safeParse(kind instanceof z.ZodLiteral ? { kind: kind.value } : {});
  const values = (neutral.success ? neutral.data : {}) as Record<string, unknown>;
  return Object.entries(schema.shape).flatMap(([key, field]) => {
    const meta = (field as z.ZodType).meta() as ControlMeta | undefined;
    return meta?.control && meta.control !== 'hidden' ? [{ key, meta, neutral: values[key] }] : [];
  });
}

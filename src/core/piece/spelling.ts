type Values = Record<string, unknown>;

const isValues = (value: unknown): value is Values => typeof value === 'object' && value !== null && !Array.isArray(value);
const number = (value: unknown, otherwise: number): number => (typeof value === 'number' ? value : otherwise);

/** The same values, some of them under other names. */
function renamed(values: Values, names: Record<string, string>): Values {
  return Object.fromEntries(Object.entries(values).map(([key, value]) => [names[key] ?? key, value]));
}
const without = (values: Values, ...keys: string[]): Values => Object.fromEntries(Object.entries(values).filter(([key]) => !keys.includes(key)));

/** Treatments as the design writes them, by kind, and what they are here. */
const treatments: Record<string, (values: Values) => Values> = {
  flow: (v) => renamed(v, { evenOut: 'even', edges: 'crisp' }),
  dabs(v) {
    const rest = renamed(without(v, 'sizes'), { aspect: 'length' });
    // Each layer is half as large as the one before.
    return Array.isArray(v.sizes) ? { ...rest, size: v.sizes[0] as unknown, layers: v.sizes.length } : rest;
  },
  // How dark lines become, and how weak an edge is drawn in full: from 30 levels down to 2.
  fine: (v) => ('darkness' in v ? { ...without(v, 'darkness', 'amount'), amount: v.darkness, full: Math.round(30 - 28 * number(v.amount, 0.5)) } : v),
  glow(v) {
    if (!('amount' in v) && typeof v.dark !== 'boolean') return v;
    const amount = number(v.amount, 0.4);
    return { ...without(v, 'amount', 'dark'), light: v.dark === true ? 0 : amount, dark: v.dark === true ? amount : 0 };
  },
  'high-pass': (v) => ({ detail: 1, colour: 0, ...v, kind: 'split' }),
  double(v) {
    if (!('x' in v) && !('y' in v)) return v;
    // The copy's strength is its own, not the step's.
    return { ...renamed(without(v, 'strength'), { x: 'right', y: 'down' }), ...('strength' in v ? { amount: v.strength } : {}) };
  },
  'two-tone'(v) {
    const rest = renamed(v, { shadowAmount: 'shadows', lightHue: 'highlightHue', lightAmount: 'highlights' });
    return { ...rest, kind: 'two-tones', ...('balance' in v ? { balance: 0.5 + number(v.balance, 0) / 2 } : {}) };
  },
};

const sources: Record<string, (values: Values) => Values> = {
  // Below 0 it darkens, above it lightens.
  vignette: (v) =>
    typeof v.amount !== 'number' || 'does' in v ? v : { ...v, amount: Math.abs(v.amount), does: v.amount > 0 ? 'lighten' : 'darken' },
};

const spelled =
  (kinds: typeof treatments) =>
  (value: unknown): unknown => {
    if (!isValues(value)) return value;
    const other = Object.hasOwn(kinds, String(value.kind)) ? kinds[String(value.kind)] : undefined;
    return other ? other(value) : value;
  };

/** A treatment that is written as the design has it, as the registry has it. */
export const spelledTreatment = spelled(treatments);
/** A source that is written as the design has it, as the registry has it. */
export const spelledSource = spelled(sources);

export const modeGroups = [
  { id: 'darken', label: 'Darken' },
  { id: 'lighten', label: 'Lighten' },
  { id: 'contrast', label: 'Light and dark' },
  { id: 'colour', label: 'Colour' },
  { id: 'compare', label: 'Difference' },
  { id: 'replace', label: 'Normal' },
] as const;

/** One blend mode: a new one is one file that exports this, and one branch in src/kernels/blend.ts. */
export interface Mode {
  /** The keyword of the standard, or our own. */
  id: string;
  label: string;
  group: (typeof modeGroups)[number]['id'];
  /** Number by which the kernel knows it. */
  kernel: number;
  /** Practitioners try these first for a texture on top. */
  triedFirst: boolean;
  /** What it does to a texture, in one line. */
  help: string;
}

export const defineMode = <const M extends Mode>(mode: M): M => mode;

import { create } from 'zustand';
import equal from 'fast-deep-equal';
import { choiceRegions, guardSentence, type GuardChoice } from '../core/guards/choices';
import { GRID, type Finding, type Seen } from '../core/guards/finding';
import { UNITS } from '../core/image/unit';
import { guardsSchema, type Guards, type Hint, type Kept, type RegionId, type RegionSettings } from '../core/guards/schema';
import { changeCoat } from '../core/piece/edits';
import type { Piece } from '../core/piece/schema';
import type { RegionStroke } from '../core/strokes/schema';
import { pieceSize, toFile } from '../core/ready/geometry';
import type { UnchangedReport } from '../engine/unchanged';
import { Cancelled } from '../engine/stopping';
import { useBench } from './bench';
import { getEngine } from './engine';
import { complain, say } from './notices';
import { readyOf } from './ready';
import { words } from './words';

/** What a stroke does to the chosen region: paints on it, tells the subject from its background, or lets what it touches grow and leaves it out. */
export type GuardDoes = 'put' | 'take' | 'keep' | 'leave' | 'hair' | 'grow' | 'spare';

interface GuardsState {
  /** What was found on the photo of the piece on the bench. */
  finding: Finding | null;
  /** The key of that photo. */
  of: string | null;
  /** 0..1 while faces and people are looked for. */
  progress: number | null;
  /** The region whose controls are open. */
  region: RegionId | null;
  show: 'none' | 'colour' | 'heat';
  does: GuardDoes;
  /** What is added or erased ends at the photo's edges. */
  snap: boolean;
  /** A stroke on a guard is under way: what it keeps is measured when it ends. */
  painting: boolean;
  report: UnchangedReport | null;
  /** The report is of the photo's own pixels. */
  exact: boolean;
  set(change: Partial<Pick<GuardsState, 'region' | 'show' | 'does' | 'snap' | 'painting'>>): void;
}

export const useGuards = create<GuardsState>((set) => ({
  finding: null,
  of: null,
  progress: null,
  region: null,
  show: 'none',
  does: 'put',
  snap: true,
  painting: false,
  report: null,
  exact: false,
  set: (change) => set(change),
}));

let stop: AbortController | null = null;
const pause = () => new Promise((resolve) => setTimeout(resolve));

/** Looks for faces and people on the piece's photo; the guards then hold with the trade's amounts. */
export async function findGuards(): Promise<void> {
  const { piece } = useBench.getState();
  if (!piece || stop) return;
  const control = new AbortController();
  stop = control;
  useGuards.setState({ progress: 0 });
  try {
    const engine = await getEngine();
    const finding = await engine.guards.find(piece.photo, {
      signal: control.signal,
      onProgress: (share) => useGuards.setState({ progress: share }),
    });
    if (useBench.getState().piece?.id !== piece.id) return;
    useGuards.setState({ finding, of: piece.photo.key });
    // The page draws itself in between, so that it never stands still for long.
    await pause();
    const { change } = useBench.getState();
    change(words.guards.guardFacesAndPeople, (p) => (p.guards ? p : { ...p, guards: guardsSchema.parse({}) }));
    await pause();
    say(guardSentence(finding, useBench.getState().piece?.guards ?? guardsSchema.parse({})));
  } catch (error) {
    if (!(error instanceof Cancelled)) complain(error);
  } finally {
    stop = null;
    useGuards.setState({ progress: null });
  }
}

export const stopFinding = (): void => stop?.abort();

/** Reads again what is known of the photo of a piece that has guards. */
export async function recallFinding(piece: Piece): Promise<void> {
  if (useGuards.getState().of === piece.photo.key) return;
  useGuards.setState({ finding: null, of: piece.photo.key, region: null, report: null, show: 'none' });
  if (!piece.guards) return;
  const finding = await (await getEngine()).guards.find(piece.photo);
  if (useBench.getState().piece?.photo.key === piece.photo.key) useGuards.setState({ finding });
}

const withGuards =
  (change: (guards: Guards) => Partial<Guards>) =>
  (piece: Piece): Piece => {
    const guards = piece.guards ?? guardsSchema.parse({});
    return { ...piece, guards: { ...guards, ...change(guards) } };
  };

export const setRegion = (id: RegionId, values: Partial<RegionSettings>) =>
  withGuards((g) => ({ regions: { ...g.regions, [id]: { ...g.regions[id], ...values } } }));

/** Keeps what a choice names by one amount; strokes on regions stay. Who chooses the person has seen that there is one. */
export const keepChoice = (choice: GuardChoice, amount: number, follow?: number) =>
  withGuards((g) => {
    const set = Object.entries(choiceRegions(choice, amount, follow)) as [RegionId, Partial<RegionSettings>][];
    const person = choice === 'person' ? true : g.person;
    return { person, regions: { ...g.regions, ...Object.fromEntries(set.map(([id, values]) => [id, { ...g.regions[id], ...values }])) } };
  });

export const takeFace = (index: number, taken: boolean) => withGuards((g) => ({ faces: { ...g.faces, [String(index)]: taken } }));

export const takePerson = (taken: boolean) => withGuards(() => ({ person: taken }));

export const addRegionStroke = (id: RegionId, stroke: RegionStroke) =>
  withGuards((g) => ({ regions: { ...g.regions, [id]: { ...g.regions[id], strokes: [...(g.regions[id]?.strokes ?? []), stroke] } } }));

export const addHint = (hint: Hint) => withGuards((g) => ({ hints: [...g.hints, hint] }));
export const addKept = (kept: Kept) => withGuards((g) => ({ kept: [...g.kept, kept] }));
/** A face that was only seen, as a stroke about its eyes, nose and mouth that grows to its edges. Seen from the side, they lie at its rim: it keeps well inside. */
export function keptOfSeen({ x, y, size, marks }: Seen, photo: Piece['photo']): Kept {
  const k = Math.max(photo.width, photo.height) / GRID;
  const inside = (mark: number, middle: number) => (mark + (middle - mark) * INWARD) * k;
  const at = (i: number): [number, number] => [inside(marks[2 * i], x) / photo.width, inside(marks[2 * i + 1], y) / photo.height];
  return { keep: true, size: (0.6 * size * UNITS) / GRID, points: [at(0), at(1), at(2), at(3)] };
}
const INWARD = 0.5;
export const keepsSeen = (guards: Guards | undefined, kept: Kept): boolean => guards?.kept.some((one) => equal(one, kept)) ?? false;
export const keepSeen = (kept: Kept, taken: boolean) =>
  withGuards((g) => ({ kept: [...g.kept.filter((one) => !equal(one, kept)), ...(taken ? [kept] : [])] }));
export const clearKept = withGuards(() => ({ kept: [] }));
export const clearHints = withGuards(() => ({ hints: [], hairs: [] }));
export const addHair = (hair: Guards['hairs'][number]) => withGuards((g) => ({ hairs: [...g.hairs, hair] }));
export const takeWhatStandsOut = (standsOut: boolean) => withGuards(() => ({ standsOut }));

/** Amount of a region for one coat alone; undefined lets the piece's own hold again. */
export const setOwnAmount = (coat: string, id: RegionId, amount: number | undefined) =>
  changeCoat(coat, (c) => {
    const { [id]: _old, ...rest } = c.guardAmounts ?? {};
    return { guardAmounts: amount === undefined ? rest : { ...rest, [id]: amount } };
  });

/** A point of the readied photo in fractions of the file. */
export function onFile(piece: Piece, x: number, y: number): [number, number] {
  const [fx, fy] = toFile(piece.photo, readyOf(piece), [x, y]);
  const round = (v: number) => Math.round(v * 1e5) / 1e5;
  return [round(fx / piece.photo.width), round(fy / piece.photo.height)];
}

/** A length in u of the readied photo in u of the file. */
export function lengthOnFile(piece: Piece, u: number): number {
  const { width, height } = pieceSize(piece);
  return (u * Math.max(width, height)) / Math.max(piece.photo.width, piece.photo.height);
}

let measuring = false;
let wanted: Piece | null = null;

/** Measures how much of each region is left; the newest piece when several come at once. */
export async function measureUnchanged(piece: Piece): Promise<void> {
  wanted = piece;
  if (measuring) return;
  measuring = true;
  try {
    while (wanted) {
      const one: Piece = wanted;
      wanted = null;
      const engine = await getEngine();
      const report = await engine.unchanged.measure(one, false);
      if (useBench.getState().piece?.id === one.id) useGuards.setState({ report, exact: false });
    }
  } finally {
    measuring = false;
  }
}

/** The same at the photo's own pixels. */
export async function measureExactly(piece: Piece): Promise<void> {
  const engine = await getEngine();
  const control = new AbortController();
  stop = control;
  useGuards.setState({ progress: 0 });
  try {
    const report = await engine.unchanged.measure(piece, true, {
      signal: control.signal,
      onProgress: (done, total) => useGuards.setState({ progress: done / total }),
    });
    useGuards.setState({ report, exact: true });
  } catch (error) {
    if (!control.signal.aborted) throw error;
  } finally {
    stop = null;
    useGuards.setState({ progress: null });
  }
}

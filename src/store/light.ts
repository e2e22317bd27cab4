import { useEffect } from 'react';
import { create } from 'zustand';
import { treatmentByKind } from '../core/treatments';
import { asRelief, EVEN, SURE_LIGHT, type Light } from '../core/form/light';
import type { Lamp } from '../core/form/lamp';
import { materialById } from '../core/materials';
import type { MaterialLight } from '../core/materials/sheetLight';
import type { Edit, SourceInput } from '../core/piece/edits';
import type { Piece } from '../core/piece/schema';
import { fromFile, pieceSize } from '../core/ready/geometry';
import type { FindOptions } from '../engine/guards';
import { Cancelled } from '../engine/stopping';
import { useBench } from './bench';
import { getEngine } from './engine';
import { complain, say } from './notices';
import { readyOf } from './ready';
import { words } from './words';

/** What the light is being looked for, by its name, and how far that is, 0..1. */
export const useMatching = create<{ of: string | null; share: number }>(() => ({ of: null, share: 0 }));

let stop: AbortController | null = null;
export const stopMatching = (): void => stop?.abort();

/** Turns a direction on the file into that on the piece, which may be turned, mirrored or cropped. */
const turnedOn =
  (piece: Piece) =>
  (x: number, y: number): [number, number] => {
    const { photo } = piece;
    const step = photo.width / 50;
    const at = (k: number) => fromFile(photo, readyOf(piece), [photo.width / 2 + k * x * step, photo.height / 2 + k * y * step]);
    const { width, height } = pieceSize(piece);
    const [from, to] = [at(0), at(1)];
    return [(to[0] - from[0]) * width, (to[1] - from[1]) * height];
  };

/** The light on the photo's largest face. */
export async function readLight(piece: Piece, options: FindOptions): Promise<Light | null> {
  const light = await (await getEngine()).forms.light(piece, options);
  useKnown.setState({ key: keyOf(piece), light });
  return light;
}

/** The light that was read last, and of what. */
const useKnown = create<{ key: string; light: Light | null }>(() => ({ key: '', light: null }));
const keyOf = ({ photo, guards }: Piece): string => `${photo.key}:${JSON.stringify(guards?.faces ?? {})}`;

/** Reads the light while a tab with lit steps is open, where faces have been found already: steps that are added begin with it. */
export function useLightAhead(): void {
  const piece = useBench((s) => s.piece);
  const key = piece ? keyOf(piece) : '';
  useEffect(() => {
    const { piece: now } = useBench.getState();
    if (!now || useKnown.getState().key === key) return;
    void getEngine()
      .then((engine) => (engine.guards.hasFound(now) ? readLight(now, {}) : null))
      .catch(() => undefined);
  }, [key]);
}

/** The light on the photo's face as relief names it, when it is known and sure; null otherwise. */
export function knownLight(): Lamp | null {
  const { piece } = useBench.getState();
  const { key, light } = useKnown.getState();
  return piece && light && key === keyOf(piece) && isSureOf(light) ? relievedOf(piece, light) : null;
}

/** What a step of a kind takes of a lamp: not every step has a height of the light. */
export const lampOf = (kind: string, { direction, elevation }: Lamp): Partial<Lamp> =>
  'elevation' in treatmentByKind(kind).schema.shape ? { direction, elevation } : { direction };

/** Where a new step of a kind is lit from, when the light on the photo's face is known and sure; nothing otherwise. */
export function knownLamp(kind: string): Partial<Lamp> {
  const light = treatmentByKind(kind).isLit ? knownLight() : null;
  return light ? lampOf(kind, light) : {};
}

/** A light that grazes a material makes ravines of its grain. */
const LOWEST_ON_MATERIALS = 25;

/** A light on a material from where a lamp stands. */
export const lampOnMaterial = ({ direction, elevation }: Lamp): MaterialLight => ({
  from: 'side',
  direction,
  elevation: Math.max(LOWEST_ON_MATERIALS, elevation),
});

/** A material that is to be laid, lit as the photo's face is, when that is known and sure. */
export function litAsKnown(source: SourceInput): SourceInput {
  const light = source.kind === 'material' && !materialById(String(source.id)).unlit ? knownLight() : null;
  return light && !source.light ? { ...source, light: lampOnMaterial(light) } : source;
}

export const isSureOf = ({ confidence }: Light): boolean => confidence >= SURE_LIGHT;

/** A light as relief names it, on the piece; from the front, a little above, where it is not sure. */
export const relievedOf = (piece: Piece, light: Light) => asRelief(isSureOf(light) ? light : EVEN, turnedOn(piece));

/**
 * Lights something from where the light on the photo's largest face comes.
 *
 * @param of - Its name while the light is looked for.
 * @param step - The name of the change.
 */
export async function matchLight(of: string, step: string, lightBy: (lamp: Lamp) => Edit): Promise<void> {
  const { piece } = useBench.getState();
  if (!piece || stop) return;
  const control = new AbortController();
  stop = control;
  useMatching.setState({ of, share: 0 });
  try {
    const light = await readLight(piece, { signal: control.signal, onProgress: (share) => useMatching.setState({ share }) });
    if (useBench.getState().piece?.id !== piece.id) return;
    if (!light) return say(words.light.noFace);
    const lamp = relievedOf(piece, light);
    useBench.getState().change(step, lightBy(lamp));
    say(isSureOf(light) ? words.light.found(lamp.direction, lamp.elevation) : words.light.notSure);
  } catch (error) {
    if (!(error instanceof Cancelled)) complain(error);
  } finally {
    stop = null;
    useMatching.setState({ of: null, share: 0 });
  }
}

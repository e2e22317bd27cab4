import { irisMarks } from '../core/piece/marks';
import type { SourceInput } from '../core/piece/edits';
import { strokesSourceSchema } from '../core/sources/strokes';
import { useBench } from './bench';
import { useGuards } from './guards';
import { say } from './notices';
import { words } from './words';

/** The colour that irises get first. */
const FIRST = '#3a6ea0';
/** What is as light as the white of an eye stays as it is. */
const WITHOUT_WHITES: [number, number, number, number] = [0, 0, 0.5, 0.68];

/** Adds a coat of marks in colour mode over the irises of the faces found, and opens its colour. */
export function recolourIrises(): void {
  const { piece, addCoat, openFacet } = useBench.getState();
  const { finding } = useGuards.getState();
  const strokes = piece && finding ? irisMarks(finding, piece.photo, piece.ready) : [];
  if (strokes.length === 0) return say(words.marks.noEyes);
  const source = strokesSourceSchema.parse({ kind: 'strokes', colour: FIRST, strokes });
  addCoat(source as unknown as SourceInput, { blend: 'color', strength: 0.7, limits: WITHOUT_WHITES, name: words.marks.irises });
  openFacet('material');
}

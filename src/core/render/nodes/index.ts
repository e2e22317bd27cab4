import beyond from './beyond';
import carried from './carried';
import clear from './clear';
import coat from './coat';
import focus from './focus';
import followed from './followed';
import form from './form';
import framed from './framed';
import layer from './layer';
import { even, part, whole } from './mask';
import type { NodeType } from './node';
import source from './source';
import treatment, { laid } from './treatment';
import { grey, heat, mix, onGrey, tinted } from './views';

/** Every kind of step that a drawing is made of. */
const types: Readonly<Record<string, NodeType>> = {
  carried,
  framed,
  form,
  focus,
  treatment,
  laid,
  source,
  beyond,
  clear,
  even,
  part,
  whole,
  coat,
  layer,
  followed,
  mix,
  tinted,
  grey,
  onGrey,
  heat,
};

/** @throws RangeError when there is no such step. */
export function nodeTypeOf(op: string): NodeType {
  const type = types[op];
  if (!type) throw new RangeError(`There is no step of a drawing called "${op}".`);
  return type;
}

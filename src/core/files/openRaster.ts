import { XMLParser, XMLValidator } from 'fast-xml-parser';
import type { BlendName } from '../blend';
import { BadFile } from './inspect';

// The stack of an OpenRaster file (freedesktop.org, OpenRaster 0.0.6): what is written into stack.xml, and what is read from it.

/** Names that the specification gives to modes, by ours. Modes that are not here are baked. */
const OPERATORS: Partial<Record<BlendName, string>> = {
  normal: 'svg:src-over',
  multiply: 'svg:multiply',
  screen: 'svg:screen',
  overlay: 'svg:overlay',
  darken: 'svg:darken',
  lighten: 'svg:lighten',
  'color-dodge': 'svg:color-dodge',
  'color-burn': 'svg:color-burn',
  'hard-light': 'svg:hard-light',
  'soft-light': 'svg:soft-light',
  difference: 'svg:difference',
  color: 'svg:color',
  luminosity: 'svg:luminosity',
  hue: 'svg:hue',
  saturation: 'svg:saturation',
  'plus-lighter': 'svg:plus',
};
const MODES = new Map(Object.entries(OPERATORS).map(([mode, operator]) => [operator, mode as BlendName]));

/** The specification's name of a mode; undefined where it has none. */
export const operatorOf = (mode: BlendName): string | undefined => OPERATORS[mode];

/** One layer of a stack. */
export interface StackLayer {
  name: string;
  /** Its picture's place in the file. */
  src: string;
  /** Where its left upper corner lies, in pixels. */
  x: number;
  y: number;
  opacity: number;
  visible: boolean;
  mode: BlendName;
}

const escaped = (text: string) =>
  text
    // Characters that XML 1.0 does not allow.
    .replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD]/g, '')
    .replace(/[&<>"]/g, (ch) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[ch] as string);

/** The text of stack.xml. @param layers - Bottom to top; in the file the uppermost comes first. @throws RangeError for a mode without a name there */
export function stackXml({ width, height }: { width: number; height: number }, layers: readonly StackLayer[]): string {
  const lines = [...layers].reverse().map(({ name, src, x, y, opacity, visible, mode }) => {
    const operator = OPERATORS[mode];
    if (!operator) throw new RangeError(`OpenRaster has no name for the mode ${mode}.`);
    const attributes = {
      name: escaped(name),
      src: escaped(src),
      x: String(x),
      y: String(y),
      opacity: String(Number(opacity.toFixed(6))),
      visibility: visible ? 'visible' : 'hidden',
      'composite-op': operator,
    };
    return `    <layer ${Object.entries(attributes)
      .map(([key, value]) => `${key}="${value}"`)
      .join(' ')} />`;
  });
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<image version="0.0.6" w="${width}" h="${height}" xres="72" yres="72">`,
    '  <stack>',
    ...lines,
    '  </stack>',
    '</image>',
    '',
  ].join('\n');
}

/** Most layers that are read, and how deep stacks may lie in each other. */
const MOST_LAYERS = 200;
const DEEPEST = 20;

/** An element as the parser gives it: its attributes under ":@", its children under its name. */
type Element = Record<string, unknown> & { ':@'?: Record<string, string> };

interface Around {
  x: number;
  y: number;
  opacity: number;
  visible: boolean;
}

/** The elements of a text; null where it is not well-formed in a way that the validator lets pass. */
function elementsOf(xml: string): Element[] | null {
  try {
    return new XMLParser({ preserveOrder: true, ignoreAttributes: false, attributeNamePrefix: '', parseAttributeValue: false }).parse(
      xml,
    ) as Element[];
  } catch {
    return null;
  }
}

/**
 * Reads stack.xml: its layers bottom to top. Stacks within it are taken apart: their offset, opacity and visibility pass to their layers. A mode that is
 * not known is read as normal, as the specification asks.
 *
 * @throws BadFile with one sentence
 */
export function readStack(xml: string, called: string): { width: number; height: number; layers: StackLayer[] } {
  const damaged = new BadFile(`${called} cannot be read: its list of layers is damaged; save it again where it was made.`);
  if (XMLValidator.validate(xml) !== true || /<!DOCTYPE|<!ENTITY/i.test(xml)) throw damaged;
  const image = elementsOf(xml)?.find((element) => 'image' in element);
  const about = image?.[':@'] ?? {};
  const [width, height] = [about.w, about.h].map(Number);
  if (!image || !(width > 0) || !(height > 0)) throw damaged;
  const layers: StackLayer[] = [];
  const visit = (elements: readonly Element[], around: Around, depth: number): void => {
    if (depth > DEEPEST) throw damaged;
    for (const element of elements) {
      const own = element[':@'] ?? {};
      const { x, y, opacity } = { x: number(own.x, 0), y: number(own.y, 0), opacity: number(own.opacity, 1) };
      const inside: Around = {
        x: around.x + x,
        y: around.y + y,
        opacity: around.opacity * Math.min(1, Math.max(0, opacity)),
        visible: around.visible && own.visibility !== 'hidden',
      };
      if (Array.isArray(element.stack)) visit(element.stack as Element[], inside, depth + 1);
      else if ('layer' in element && own.src) {
        if (layers.length >= MOST_LAYERS) throw new BadFile(`${called} has more than ${MOST_LAYERS} layers; merge some where it was made.`);
        layers.push({ ...inside, name: own.name ?? '', src: own.src, mode: MODES.get(own['composite-op']) ?? 'normal' });
      }
    }
  };
  visit((image.image as Element[]) ?? [], { x: 0, y: 0, opacity: 1, visible: true }, 0);
  return { width, height, layers: layers.reverse() };
}

function number(text: string | undefined, otherwise: number): number {
  const value = Number(text);
  return text === undefined || text.trim() === '' || !Number.isFinite(value) ? otherwise : value;
}

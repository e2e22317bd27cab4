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

interface Laid {
  name: string;
  opacity: number;
  visible: boolean;
  mode: BlendName;
}

/** One layer of a stack. */
export interface StackLayer extends Laid {
  /** Its picture's place in the file. */
  src: string;
  /** Where its left upper corner lies, in pixels. */
  x: number;
  y: number;
}

/** A stack within a stack. */
export interface StackGroup extends Laid {
  /** Its layers are laid together before they are laid on what is below. */
  isolated: boolean;
  layers: StackEntry[];
}
export type StackEntry = StackLayer | StackGroup;

const escaped = (text: string) =>
  text
    // Characters that XML 1.0 does not allow.
    .replace(/[^\t\n\r\u0020-\uD7FF\uE000-\uFFFD]/g, '')
    .replace(/[&<>"]/g, (ch) => ({ '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' })[ch] as string);

/** The text of stack.xml. @param entries - Bottom to top; in the file the uppermost comes first. @throws RangeError for a mode without a name there */
export function stackXml({ width, height }: { width: number; height: number }, entries: readonly StackEntry[]): string {
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<image version="0.0.6" w="${width}" h="${height}" xres="72" yres="72">`,
    '  <stack>',
    ...linesOf(entries, '    '),
    '  </stack>',
    '</image>',
    '',
  ].join('\n');
}

const linesOf = (entries: readonly StackEntry[], indent: string): string[] => [...entries].reverse().flatMap((entry) => lineOf(entry, indent));

function lineOf(entry: StackEntry, indent: string): string[] {
  const { name, opacity, visible, mode } = entry;
  const operator = OPERATORS[mode];
  if (!operator) throw new RangeError(`OpenRaster has no name for the mode ${mode}.`);
  const laid = {
    name: escaped(name),
    opacity: String(Number(opacity.toFixed(6))),
    visibility: visible ? 'visible' : 'hidden',
    'composite-op': operator,
  };
  const element = (tag: string, attributes: object) =>
    `${indent}<${tag} ${Object.entries(attributes)
      .map(([key, value]) => `${key}="${value}"`)
      .join(' ')}`;
  if (!('layers' in entry)) return [`${element('layer', { ...laid, src: escaped(entry.src), x: String(entry.x), y: String(entry.y) })} />`];
  const isolation = entry.isolated ? 'isolate' : 'auto';
  return [`${element('stack', { ...laid, isolation })}>`, ...linesOf(entry.layers, `${indent}  `), `${indent}</stack>`];
}

/** Most layers that are read, and how deep stacks may lie in each other. */
const MOST_LAYERS = 200;
const DEEPEST = 20;

/** An element as the parser gives it: its attributes under ":@", its children under its name. */
type Element = Record<string, unknown> & { ':@'?: Record<string, string> };

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
 * Reads stack.xml: its layers and stacks, bottom to top. Offsets of stacks are added to those of their layers. A stack is isolated where it says so, or has an
 * opacity or a mode of its own. A mode that is not known is read as normal, as the specification asks.
 *
 * @throws BadFile with one sentence
 */
export function readStack(xml: string, called: string): { width: number; height: number; layers: StackEntry[] } {
  const damaged = new BadFile(`${called} cannot be read: its list of layers is damaged; save it again where it was made.`);
  if (XMLValidator.validate(xml) !== true || /<!DOCTYPE|<!ENTITY/i.test(xml)) throw damaged;
  const image = elementsOf(xml)?.find((element) => 'image' in element);
  const about = image?.[':@'] ?? {};
  const [width, height] = [about.w, about.h].map(Number);
  if (!image || !(width > 0) || !(height > 0)) throw damaged;
  let count = 0;
  const visit = (elements: readonly Element[], left: number, top: number, depth: number): StackEntry[] => {
    if (depth > DEEPEST) throw damaged;
    return elements
      .flatMap((element): StackEntry[] => {
        const own = element[':@'] ?? {};
        const [x, y] = [left + number(own.x, 0), top + number(own.y, 0)];
        const laid: Laid = {
          name: own.name ?? '',
          opacity: Math.min(1, Math.max(0, number(own.opacity, 1))),
          visible: own.visibility !== 'hidden',
          mode: MODES.get(own['composite-op']) ?? 'normal',
        };
        if (Array.isArray(element.stack)) {
          const isolated = own.isolation === 'isolate' || laid.opacity < 1 || laid.mode !== 'normal';
          return [{ ...laid, isolated, layers: visit(element.stack as Element[], x, y, depth + 1) }];
        }
        if (!('layer' in element) || !own.src) return [];
        if (++count > MOST_LAYERS) throw new BadFile(`${called} has more than ${MOST_LAYERS} layers; merge some where it was made.`);
        return [{ ...laid, x, y, src: own.src }];
      })
      .reverse();
  };
  // The outermost stack is the picture itself.
  const [root] = visit((image.image as Element[]) ?? [], 0, 0, 0);
  if (!root || !('layers' in root)) return { width, height, layers: [] };
  return { width, height, layers: root.visible && root.opacity === 1 ? root.layers : [root] };
}

function number(text: string | undefined, otherwise: number): number {
  const value = Number(text);
  return text === undefined || text.trim() === '' || !Number.isFinite(value) ? otherwise : value;
}

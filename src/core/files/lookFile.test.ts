import { strToU8, unzipSync, zipSync } from 'fflate';
import { recipeSchema } from '../piece/schema';
import { BadFile } from './inspect';
import { holdsLook, readLook, writeLook } from './lookFile';

const recipe = recipeSchema.parse({
  dermatex: 1,
  name: 'Old card',
  coats: [
    { source: { kind: 'picture', file: 'cloud.png', width: 4, height: 3 }, blend: 'multiply' },
    { source: { kind: 'colour', colour: '#808080' }, mask: { start: 'none', parts: [{ kind: 'material', op: 'add', file: 'edge.png' }] } },
  ],
});
const pictures = new Map([
  ['cloud.png', Uint8Array.of(1, 2, 3)],
  ['edge.png', Uint8Array.of(4)],
]);

it('a look goes out as one zip with its pictures, which any unzipper reads, and comes in again without loss', () => {
  const zip = writeLook({ recipe, pictures });
  expect(Object.keys(unzipSync(zip)).sort()).toEqual(['cloud.png', 'edge.png', 'recipe.json']);
  expect(readLook(zip, 'old.zip')).toEqual({ recipe, pictures });
  expect(holdsLook(zip)).toBe(true);
});

it('a plain recipe file is read as a look', () => {
  expect(readLook(strToU8(JSON.stringify(recipe)), 'old.json')).toEqual({ recipe, pictures: new Map() });
});

it.each([
  ['without a recipe', zipSync({ 'cloud.png': Uint8Array.of(1) }), /“x.zip” holds no recipe.json, so it is not a look/],
  [
    'without a picture that it names',
    zipSync({ 'recipe.json': strToU8(JSON.stringify(recipe)), 'cloud.png': Uint8Array.of(1) }),
    /names a picture that is not in it \(edge.png\)/,
  ],
  [
    'with a place outside',
    zipSync({ 'recipe.json': strToU8(JSON.stringify(recipe)), '../cloud.png': Uint8Array.of(1) }),
    /names a file outside itself/,
  ],
  ['that is cut short', writeLook({ recipe, pictures }).subarray(0, 60), /is not a zip file, or is damaged/],
])('a zip %s is refused in one sentence', (_name, zip, says) => {
  expect(() => readLook(zip, 'x.zip')).toThrow(BadFile);
  expect(() => readLook(zip, 'x.zip')).toThrow(says);
});

it('a pack of materials is not taken for one, and a look without its pictures does not go out', () => {
  expect(holdsLook(zipSync({ 'pack.json': strToU8('{}') }))).toBe(false);
  expect(holdsLook(Uint8Array.of(0x50, 0x4b, 3, 4, 9))).toBe(false);
  expect(() => writeLook({ recipe, pictures: new Map([['cloud.png', Uint8Array.of(1)]]) })).toThrow('The picture edge.png of the look is missing.');
});

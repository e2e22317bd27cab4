import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { innerCoats } from '../core/piece/groups';
import { coatName } from '../core/piece/naming';
import { recipeOf } from '../core/piece/recipe';
import { useBench } from './bench';
import { sizeFor } from './export';
import { openRecipe } from './recipes';
import { fileName, keyOf, takePicture } from './files';
import { complain, say, useNotices } from './notices';
import { neutralFitting } from '../core/materials/fitting/schema';
import { bringIn, sourceOf, useOwn } from './own';
import { packOf } from './packs';
import { useShelf } from './shelf';
import { usePieces } from './pieces';
import { samples } from './samples';
import { useSettings } from './settings';
import * as pictures from './pictures';
import { TestFileReader } from '@/testing/fileReader';
import * as records from './records';
import { flush } from './saving';
import { openPiece } from './session';

const lookFile = (text: string) => new File([text], 'look.json');

// The engine sees no borders here, and makes no small pictures: both are tested in the browser.
jest.mock('./engine', () => ({
  getEngine: async () => ({
    border: async () => mockBorder,
    lacksData: async () => mockLacks,
    ownPixels: async () => ({ pixels: new Uint8Array(4), width: 1, height: 1 }),
  }),
}));
let mockBorder: object | null = null;
let mockLacks = false;

// The browser's own decoder and file reader, as far as the stores use them.
let decodes = true;
Object.assign(globalThis, {
  navigator: { storage: { estimate: async () => ({ usage: 1e6, quota: 1e9 }) } },
  createImageBitmap: async () => {
    if (!decodes) throw new Error('damaged');
    return { close: () => undefined };
  },
  ImageData: class {
    data = new Uint8ClampedArray(4);
  },
  OffscreenCanvas: class {
    getContext = () => null;
    convertToBlob = async () => new Blob(['small'], { type: 'image/jpeg' });
  },
  FileReader: TestFileReader,
  fetch: async (at: string) => {
    const body = readFileSync(`${process.cwd()}${at}`);
    return { ok: true, blob: async () => new Blob([body]) };
  },
});

const picture = async (colour: string, width = 40, height = 30) =>
  new Blob(
    [
      await sharp({ create: { width, height, channels: 3, background: colour } })
        .png()
        .toBuffer(),
    ],
    { type: 'image/png' },
  );
const texts = () => useNotices.getState().list.map((n) => n.text);

beforeEach(() => {
  decodes = true;
  useNotices.setState({ list: [] });
});

describe('taking a picture', () => {
  it('keeps it once under the digest of its bytes, with its size and name', async () => {
    const blob = await picture('#345');
    const one = await takePicture(blob, 'Harbour.png');
    const two = await takePicture(blob, 'Copy.png');
    expect(one).toMatchObject({ name: 'Harbour.png', width: 40, height: 30 });
    expect(two.key).toBe(one.key);
    // SHA-256 of "abc", FIPS 180-2, appendix B.1.
    expect(await keyOf(new TextEncoder().encode('abc').buffer as ArrayBuffer)).toBe(
      'ba7816bf8f01cfea414140de5dae2223b00361a396177a9cb410ff61f20015ad',
    );
    const back = await pictures.loadPicture(one.key);
    expect(Buffer.from(await back.arrayBuffer())).toEqual(Buffer.from(await blob.arrayBuffer()));
    expect(back.type).toBe('image/png');
  });

  it('refuses one whose data cannot be decoded, and keeps nothing of it', async () => {
    decodes = false;
    const blob = await picture('#abc', 41, 31);
    await expect(takePicture(blob, 'Torn.png')).rejects.toThrow('“Torn.png” cannot be decoded');
    await expect(pictures.loadPicture(await keyOf(await blob.arrayBuffer()))).rejects.toThrow('no longer in the browser’s store');
  });

  it('names files by the piece, without signs that a system forbids', () => {
    expect(fileName('The light / at: dusk?')).toBe('The-light-at-dusk');
    expect(fileName('Ångström 2')).toBe('Ångström-2');
    expect(fileName(' … ')).toBe('piece');
  });
});

describe('pieces', () => {
  it('are made from a file, named after it, and listed newest first', async () => {
    const a = await usePieces.getState().create(await picture('#111'), 'keeper_at-home.png');
    const b = await usePieces.getState().create(await picture('#222'), 'Lamp.png');
    await usePieces.getState().refresh();
    expect((await records.loadPiece(a))?.name).toBe('keeper at home');
    expect(
      usePieces
        .getState()
        .cards?.slice(0, 2)
        .map((c) => c.id),
    ).toEqual(expect.arrayContaining([a, b]));
  });

  it.each(samples.map((s) => [s.name, s] as const))(
    'from the sample %s, whose recipe is valid and whose pictures are there',
    async (_name, sample) => {
      const id = await usePieces.getState().createSample(sample);
      const piece = await records.loadPiece(id);
      expect(piece?.name).toBe(sample.name);
      expect(piece?.coats.length).toBeGreaterThan(1);
      for (const coat of piece?.coats ?? []) {
        expect(coatName(coat).length).toBeGreaterThan(2);
        const source = coat.source as { kind: string; file?: string };
        if (source.kind === 'picture') await expect(pictures.loadPicture(source.file ?? '')).resolves.toBeTruthy();
      }
    },
  );

  it('when removed take their pictures along, unless another piece or the shelf uses them', async () => {
    const shared = await picture('#c0ffee');
    const a = await usePieces.getState().create(shared, 'A.png');
    const b = await usePieces.getState().create(shared, 'B.png');
    const key = (await records.loadPiece(a))?.photo.key ?? '';
    await usePieces.getState().removeForGood(a);
    await expect(pictures.loadPicture(key)).resolves.toBeTruthy();
    await useOwn.getState().add(shared, 'Shelf.png');
    await usePieces.getState().removeForGood(b);
    await expect(pictures.loadPicture(key)).resolves.toBeTruthy();
    await useOwn.getState().remove(key);
    const last = await usePieces.getState().create(await picture('#123456'), 'C.png');
    await usePieces.getState().removeForGood(last);
    await expect(pictures.loadPicture(key)).rejects.toThrow('no longer');
  });

  it('from a photo of which a part is missing are made only when the person wants them', async () => {
    mockLacks = true;
    const torn = new Blob([
      await sharp({ create: { width: 40, height: 30, channels: 3, background: '#456' } })
        .jpeg()
        .toBuffer(),
    ]);
    await expect(usePieces.getState().create(torn, 'Torn.jpg')).rejects.toThrow('“Torn.jpg” is damaged: a part of its data is missing');
    const id = await usePieces.getState().create(torn, 'Torn.jpg', true);
    expect((await records.loadPiece(id))?.photo).toMatchObject({ width: 40, height: 30 });
    mockLacks = false;
  });

  it('that cannot be read are said to be so, and stop nothing else from being kept', async () => {
    await expect(records.loadPiece('never')).resolves.toBeNull();
    const id = await usePieces.getState().create(await picture('#321'), 'Old.png');
    const piece = await records.loadPiece(id);
    await records.savePiece({ ...(piece as NonNullable<typeof piece>), strength: 7 });
    await expect(records.loadPiece(id)).rejects.toThrow(RangeError);
  });
});

describe('own materials', () => {
  it('are listed once, newest first, and named without their ending', async () => {
    const one = await useOwn.getState().add(await picture('#010'), 'Flaking door.png');
    await useOwn.getState().add(await picture('#020'), 'Sailcloth.webp.png');
    await useOwn.getState().add(await picture('#010'), 'Flaking door.png');
    expect(
      useOwn
        .getState()
        .list.map((o) => o.name)
        .slice(0, 2),
    ).toEqual(['Flaking door.png', 'Sailcloth.webp.png']);
    expect(useOwn.getState().list.filter((o) => o.key === one.key)).toHaveLength(1);
    expect(useOwn.getState().names[one.key]).toBe('Flaking door');
  });

  it('are trimmed where a border is found, and that can be taken back', async () => {
    mockBorder = { left: 0.1, top: 0, right: 0.2, bottom: 0, tone: 'dark' };
    const blob = await picture('#030', 100, 80);
    const [own] = await bringIn([new File([blob], 'Bordered.png')]);
    mockBorder = null;
    expect(sourceOf(own)).toMatchObject({ kind: 'picture', file: own.key, width: 70, height: 80, fitting: { left: 0.1, right: 0.2 } });
    const { list } = useNotices.getState();
    expect(list[0].text).toBe('“Bordered” added to the shelf; the border of its scan is trimmed.');
    list[0].action?.run();
    await new Promise((resolve) => setTimeout(resolve, 50));
    expect(sourceOf(useOwn.getState().list.find((o) => o.key === own.key)!)).toMatchObject({ width: 100, height: 80 });
  });

  it('are renamed, put into a family, and come back when taking off is undone', async () => {
    const { key } = await useOwn.getState().add(await picture('#040'), 'Door.png');
    await useOwn.getState().change(key, { label: 'Barn door', family: 'wood' });
    expect(useOwn.getState().names[key]).toBe('Barn door');
    await useOwn.getState().remove(key);
    expect(useOwn.getState().list.some((o) => o.key === key)).toBe(false);
    useNotices.getState().list[0].action?.run();
    await new Promise((resolve) => setTimeout(resolve, 20));
    expect(useOwn.getState().list.find((o) => o.key === key)).toMatchObject({ label: 'Barn door', family: 'wood' });
  });

  it('go out as a pack and come in again with names, families and how they fit; bad files beside them leave the rest', async () => {
    const blob = await picture('#050', 60, 60);
    const own = await useOwn.getState().add(blob, 'Sail.png');
    await useOwn.getState().change(own.key, { label: 'Patched sail', family: 'cloth', fitting: { ...neutralFitting, seamless: true } });
    const bytes = await packOf([useOwn.getState().list.find((o) => o.key === own.key)!], { name: 'Sails', maker: 'Skerry', licence: 'CC0' });
    await useOwn.getState().remove(own.key);
    useNotices.setState({ list: [] });
    const taken = await bringIn([new File(['no picture'], 'notes.png'), new File([bytes], 'Sails.zip'), new File([bytes.slice(0, 90)], 'Half.zip')]);
    expect(taken).toHaveLength(1);
    expect(taken[0]).toMatchObject({
      key: own.key,
      label: 'Patched sail',
      family: 'cloth',
      maker: 'Skerry',
      licence: 'CC0',
      fitting: { seamless: true },
    });
    expect(texts()).toEqual([
      '“Half.zip” is not a zip file, or is damaged; fetch it again from where it came.',
      '“notes.png” is not a PNG, JPEG, WebP, AVIF or TIFF picture; choose one of those.',
      '“Patched sail” added to the shelf.',
    ]);
  });
});

describe('the shelf', () => {
  it('remembers favourites and what was laid last, newest first and once, and where it is used', async () => {
    const id = await usePieces.getState().create(await picture('#060'), 'Net.png');
    await openPiece(id);
    for (const material of ['paper.laid', 'wear.film', 'paper.laid'])
      useBench.getState().addCoat({ kind: 'material', id: material, seed: 1, params: {} });
    useShelf.getState().favour('wear.film', true);
    await flush(false);
    await new Promise((resolve) => setTimeout(resolve, 20));
    useShelf.setState({ favourites: [], recent: [] });
    await useShelf.getState().refresh();
    expect(useShelf.getState().favourites).toEqual(['wear.film']);
    expect(useShelf.getState().recent.slice(0, 2)).toEqual(['paper.laid', 'wear.film']);
    expect(await records.usesOf('paper.laid')).toContain('Net');
    expect(await records.usesOf('paper.kraft')).not.toContain('Net');
  });
});

describe('recipes and sizes', () => {
  it('are laid above what is there as one step, a picture found on the shelf by name', async () => {
    const id = await usePieces.getState().create(await picture('#999'), 'Base.png');
    await openPiece(id);
    const own = await useOwn.getState().add(await picture('#555'), 'Grain.png');
    useBench.getState().addCoat({ kind: 'picture', file: own.key });
    useBench.getState().addCoat({ kind: 'material', id: 'wear.film', seed: 2, params: {} });
    const piece = useBench.getState().piece as NonNullable<ReturnType<typeof useBench.getState>['piece']>;
    const recipe = recipeOf(piece, () => 'Grain.png');
    expect(recipe.coats[0].source).toMatchObject({ kind: 'picture', file: 'Grain.png' });
    expect(await openRecipe(lookFile(JSON.stringify(recipe)))).toBe(2);
    // Beside the coats that were there it is a group, with its own strength.
    expect(useBench.getState().piece?.coats).toHaveLength(3);
    const [laid] = innerCoats(useBench.getState().piece!.coats[2]);
    expect((laid.source as { file?: string }).file).toBe(own.key);
    useBench.getState().undo();
    expect(useBench.getState().piece?.coats).toHaveLength(2);
    await flush();
  });

  it('bring their whole readying, strength and guards along, and one undo takes all of it back', async () => {
    const before = useBench.getState().piece;
    const ready = {
      crop: { x: 0.1, y: 0, w: 0.5, h: 1 },
      lens: { k1: -0.1 },
      whiteBalance: { neutral: [0.5, 0.5], warmth: 0.2 },
      tone: { shadows: 0.3 },
      even: { amount: 0.5 },
      localTone: { flatten: 0.2 },
      localContrast: { amount: 0.3 },
      levels: { black: 0.1 },
      ranges: { shadowBlue: 0.2 },
      hues: [{ hue: 30, saturation: 0.4 }],
      noise: { luma: 0.3 },
    };
    const guards = { regions: { lips: { amount: 0.2 } } };
    await openRecipe(lookFile(JSON.stringify({ dermatex: 1, name: 'Evening', strength: 0.7, ready, guards, coats: [] })));
    const { piece } = useBench.getState();
    expect(piece?.ready).toMatchObject(ready);
    expect(piece?.strength).toBe(0.7);
    expect(piece?.guards?.regions.lips).toEqual({ amount: 0.2 });
    useBench.getState().undo();
    expect(useBench.getState().piece).toMatchObject({ strength: before?.strength, coats: before?.coats });
    expect(useBench.getState().piece?.ready).toEqual(before?.ready);
    await flush();
  });

  it('that name an unknown picture, or hold no recipe, change nothing', async () => {
    const before = useBench.getState().piece;
    const lost = { dermatex: 1, name: 'x', coats: [{ source: { kind: 'picture', file: 'lost.png' } }] };
    await expect(openRecipe(lookFile(JSON.stringify(lost)))).rejects.toThrow('“lost.png”, which is not on your shelf');
    await expect(openRecipe(lookFile('not json'))).rejects.toThrow('does not hold JSON');
    await expect(openRecipe(lookFile('{"dermatex":1,"coats":[{"source":{"kind":"material","id":"paper.aged"},"strength":3}]}'))).rejects.toThrow(
      RangeError,
    );
    expect(useBench.getState().piece).toBe(before);
  });

  it('sizes never exceed the photo and keep its shape', async () => {
    const piece = useBench.getState().piece as NonNullable<ReturnType<typeof useBench.getState>['piece']>;
    const photo = { ...piece, photo: { ...piece.photo, width: 6000, height: 4000 } };
    expect(sizeFor(photo, 3000)).toEqual({ width: 3000, height: 2000, scale: 0.5 });
    expect(sizeFor(photo, 9000)).toEqual({ width: 6000, height: 4000, scale: 1 });
    expect(sizeFor(photo, 1)).toMatchObject({ width: 1, height: 1 });
  });
});

describe('notices and settings', () => {
  it('show one sentence once, errors until they are put away, at most three', () => {
    say('Saved.');
    complain(new Error('Wrong.'));
    say('Saved.');
    expect(texts()).toEqual(['Wrong.', 'Saved.']);
    expect(useNotices.getState().list.map((n) => n.lasting)).toEqual([true, false]);
    say('Two.');
    say('Three.');
    expect(texts()).toHaveLength(3);
    useNotices.getState().put(useNotices.getState().list[0].id);
    expect(texts()).toEqual(['Two.', 'Three.']);
  });

  it('remember choices, and work where nothing can be remembered', () => {
    useSettings.getState().set({ theme: 'dark' });
    expect(useSettings.getState().theme).toBe('dark');
    useSettings.getState().set({ penPressure: false });
    expect(useSettings.getState()).toMatchObject({ theme: 'dark', penPressure: false });
  });
});

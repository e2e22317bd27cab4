import { unzipSync } from 'fflate';
import { loadBatch, resultNames, useBatch } from './batch';
import { readText, writeTexts } from './database';
import { zipInto } from './zipStream';

jest.mock('./engine', () => ({ getEngine: async () => ({}) }));

describe('names of results', () => {
  it('hold what the pattern asks for, and are such as every system takes', () => {
    expect(resultNames(['IMG 1.JPG', 'sea/side.png'], 'Old card', '{number} {look}: {name}')).toEqual([
      '001-Old-card-IMG-1',
      '002-Old-card-sea-side',
    ]);
    expect(resultNames(['a.tif'], 'x', '')).toEqual(['a']);
    expect(resultNames(['a.tif'], 'x', '{date}')).toEqual(['date']);
  });

  it('are never alike, not even to a system that does not tell capitals', () => {
    expect(resultNames(['a.jpg', 'A.png', 'a.tif'], 'x', '{name}')).toEqual(['a', 'A-2', 'a-3']);
  });

  it('of more than a thousand keep their order', () => {
    const names = resultNames(
      Array.from({ length: 1200 }, (_, i) => `${i}.jpg`),
      'x',
      '{number}',
    );
    expect([...names].sort()).toEqual(names);
  });
});

describe('a zip that is written as a stream', () => {
  async function written(files: { name: string; file: Blob }[]): Promise<{ bytes: Uint8Array; most: number }> {
    const parts: Uint8Array[] = [];
    const to = new WritableStream<Uint8Array>({ write: (part) => void parts.push(part) });
    async function* list() {
      yield* files;
    }
    await zipInto(to, list());
    return { bytes: Buffer.concat(parts), most: Math.max(...parts.map(({ length }) => length)) };
  }

  it('holds every file as it is, also an empty one, and hands on no more than a part of one at once', async () => {
    const large = Uint8Array.from({ length: 3_500_000 }, (_, i) => (i * 31) & 255);
    const { bytes, most } = await written([
      { name: 'large.bin', file: new Blob([large]) },
      { name: 'empty.txt', file: new Blob([]) },
      { name: 'öl.txt', file: new Blob(['lamp']) },
    ]);
    const files = unzipSync(bytes);
    expect(Object.keys(files)).toEqual(['large.bin', 'empty.txt', 'öl.txt']);
    expect(Buffer.compare(Buffer.from(files['large.bin']), Buffer.from(large))).toBe(0);
    expect(files['empty.txt']).toHaveLength(0);
    expect(most).toBeLessThanOrEqual(1 << 20);
  });

  it('that cannot be written is given up, and says why', async () => {
    const to = new WritableStream<Uint8Array>({
      write() {
        throw new Error('The disk is full.');
      },
    });
    async function* list() {
      for (let i = 0; i < 50; i++) yield { name: `${i}`, file: new Blob(['x'.repeat(100)]) };
    }
    await expect(zipInto(to, list())).rejects.toThrow('The disk is full.');
  });
});

it('a damaged record of a batch is set aside, and a new one can be begun', async () => {
  await writeTexts({ batch: '{"look": ' });
  useBatch.setState({ job: null });
  await loadBatch();
  expect(useBatch.getState().job).toBeNull();
  expect(await readText('damaged:batch')).toBe('{"look": ');
});

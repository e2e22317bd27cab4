import { mkdir, rm, writeFile } from 'node:fs/promises';
import path from 'node:path';
import sharp from 'sharp';
import { faceTaken, GRID, mapShare, meshPoint, personTaken, type Finding } from '../src/core/guards/finding';
import { outlineOf } from '../src/core/guards/outlines';
import { LITTLE } from '../src/core/guards/choices';
import { foundIds, guardsSchema, settingsOf, type FoundId } from '../src/core/guards/schema';
import { nodeFind } from '../src/engine/finder/node';
import type { PictureRef } from '../src/core/piece/schema';
import type { Engine } from '../src/engine/engine';
import { withEngine } from './engine';
import { decodeFile } from './decode';
import { Refused } from './files';
import { sizeOf } from './pictures';

/** Finds faces and people with the code that the page uses, and writes a mask of the photo's size for each region and what was found. */
export async function guards({ photo, out }: { photo?: string; out?: string }): Promise<void> {
  if (!photo || !out) throw new Refused('guards needs --photo and --out.');
  const { width, height } = await sizeOf(photo);
  const ref = { key: 'photo', name: path.basename(photo), width, height };
  const { finding, files, shares } = await withEngine(
    (engine) => ({ decode: (_key, deep) => decodeFile(photo, engine().pool, deep), find: nodeFind() }),
    (engine) => lookAt(engine, ref),
  );
  const long = Math.max(width, height);
  const box = (points: [number, number][]) => {
    const [xs, ys] = [points.map((p) => p[0]), points.map((p) => p[1])];
    const [x, y] = [Math.min(...xs), Math.min(...ys)];
    return { x: Math.round(x), y: Math.round(y), width: Math.round(Math.max(...xs) - x), height: Math.round(Math.max(...ys) - y) };
  };
  const report = {
    photo: ref.name,
    width,
    height,
    faces: finding.faces.map((face, i) => ({
      score: face.score,
      taken: faceTaken(undefined, finding, i),
      offered: !faceTaken(undefined, finding, i),
      box: box(outlineOf(face, 'oval', long)),
      eyes: (['rightEye', 'leftEye'] as const).map((ring) => box(outlineOf(face, ring, long))),
      lips: box(outlineOf(face, 'lips', long)),
      mesh: Array.from({ length: 468 }, (_, i) => meshPoint(face, i, long).map((v) => Math.round(v * 10) / 10)),
    })),
    seen: (finding.seen ?? []).map(({ x, y, size }) => {
      const [left, top, side] = [x - size / 2, y - size / 2, size].map((v) => Math.round((v * long) / GRID));
      return { offered: true, box: { x: left, y: top, width: side, height: side } };
    }),
    regions: Object.fromEntries(
      foundIds.map((id) => {
        const offered = isOffered(finding, id);
        return [
          id,
          { file: fileOf(finding, id), amount: settingsOf({ regions: {} }, id).amount, share: shares[id], ...(offered ? { offered } : {}) },
        ];
      }),
    ),
  };
  files['guards.json'] = Buffer.from(`${JSON.stringify(report, null, 1)}\n`);
  // All of it or nothing: the folder is written last.
  const written: string[] = [];
  try {
    await mkdir(out, { recursive: true });
    for (const [name, bytes] of Object.entries(files)) {
      await writeFile(path.join(out, name), bytes);
      written.push(name);
    }
  } catch {
    await Promise.all(written.map((name) => rm(path.join(out, name), { force: true })));
    throw new Refused(`The folder ${out} cannot be written; does it lie in one that exists?`);
  }
  console.log(`${finding.faces.length} ${finding.faces.length === 1 ? 'face' : 'faces'}, ${foundIds.length} masks in ${out}`);
}

/** The subject is only offered where no face says that the person found is one. */
const isOffered = (finding: Finding, id: FoundId): boolean =>
  id === 'subject' && !personTaken(undefined, finding) && finding.person !== null && mapShare(finding.person) > LITTLE;
const fileOf = (finding: Finding, id: FoundId): string => (isOffered(finding, id) ? `${id}.offered.png` : `${id}.png`);

/** What is found on a photo, a mask for each region as a PNG of its size, and the share of the photo that each covers. */
async function lookAt(engine: Engine, ref: PictureRef) {
  const finding = await engine.guards.find(ref).catch((error: Error) => {
    throw new Refused(error.message);
  });
  const files: Record<string, Buffer> = {};
  const shares: Record<string, number> = {};
  for (const id of foundIds) {
    const piece = { photo: ref, guards: guardsSchema.parse(isOffered(finding, id) ? { person: true } : {}) };
    const plane = await engine.guards.plane(piece, id);
    const bytes = Buffer.from(await engine.guards.bytes(piece, id));
    shares[id] = Math.round((bytes.reduce((sum, v) => sum + v, 0) / (255 * bytes.length)) * 1e5) / 1e5;
    files[fileOf(finding, id)] = await sharp(bytes, { raw: { width: plane.width, height: plane.height, channels: 1 } })
      .resize(ref.width, ref.height, { fit: 'fill', kernel: 'linear' })
      .toColourspace('b-w')
      .png()
      .toBuffer();
  }
  return { finding, files, shares };
}

import { writePack, type Pack } from '../core/files/pack';
import { download, endingOf, fileName } from './files';
import { labelOf } from './own';
import { loadPicture } from './pictures';
import type { OwnMaterial } from './storage';

/** Own materials as the bytes of a pack: their files untouched, and how each is made to fit. */
export async function packOf(list: OwnMaterial[], words: Pick<Pack, 'name' | 'maker' | 'licence'>): Promise<Uint8Array<ArrayBuffer>> {
  const pictures = new Map<string, Uint8Array>();
  const materials: Pack['materials'] = [];
  for (const own of list) {
    const blob = await loadPicture(own.key);
    let file = `${fileName(labelOf(own))}.${endingOf(blob)}`;
    for (let n = 2; pictures.has(file); n++) file = `${fileName(labelOf(own))}-${n}.${endingOf(blob)}`;
    pictures.set(file, new Uint8Array(await blob.arrayBuffer()));
    materials.push({ file, name: labelOf(own), ...(own.family ? { family: own.family } : {}), ...(own.fitting ? { fitting: own.fitting } : {}) });
  }
  return writePack({ dermatex: 1, ...words, materials }, pictures);
}

export async function giveOut(list: OwnMaterial[], words: Pick<Pack, 'name' | 'maker' | 'licence'>): Promise<void> {
  download(new Blob([await packOf(list, words)], { type: 'application/zip' }), `${fileName(words.name)}.zip`);
}

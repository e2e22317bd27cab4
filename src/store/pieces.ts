import { filesOf, withFiles, type FoundFile } from '../core/piece/pictures';
import { create } from 'zustand';
import { coatsOf, layRecipe, parseRecipe } from '../core/piece/recipe';
import { pieceSchema, type Piece, type PictureRef } from '../core/piece/schema';
import { takePicture } from './files';
import { complain } from './notices';
import * as storage from './storage';

interface PiecesState {
  cards: storage.PieceCard[] | null;
  space: { used: number; quota: number } | null;
  refresh(): Promise<void>;
  /** Makes a piece from a picture file and returns its id. */
  create(file: Blob, name: string): Promise<string>;
  /** Makes a piece from a sample that ships with the application. */
  createSample(sample: Sample): Promise<string>;
  remove(id: string): Promise<void>;
  duplicate(id: string): Promise<void>;
}

export interface Sample {
  id: string;
  name: string;
  says: string;
  photo: string;
  recipe: string;
  picture: string;
}

export const newId = (): string => crypto.randomUUID().replace(/-/g, '').slice(0, 12);

const bare = (name: string) =>
  name
    .replace(/\.[a-z0-9]+$/i, '')
    .replace(/[-_]+/g, ' ')
    .trim() || 'Piece';

function newPiece(photo: PictureRef, name: string): Piece {
  const now = Date.now();
  return pieceSchema.parse({ dermatex: 1, id: newId(), name, created: now, changed: now, photo, coats: [] });
}

const file = async (path: string): Promise<Blob> => {
  const response = await fetch(path);
  if (!response.ok) throw new Error('The sample could not be read from the server; start it again and retry.');
  return response.blob();
};

export const usePieces = create<PiecesState>((set, get) => ({
  cards: null,
  space: null,
  async refresh() {
    set({ cards: await storage.listCards(), space: await storage.space() });
  },
  async create(blob, name) {
    const photo = await takePicture(blob, name);
    const piece = newPiece(photo, bare(name));
    await storage.savePiece(piece, null);
    // The bench need not wait for the new list.
    void get().refresh().catch(complain);
    return piece.id;
  },
  async createSample(sample) {
    const [picture, text] = await Promise.all([file(`/demo/photos/${sample.photo}`), file(`/demo/pieces/${sample.recipe}`)]);
    const photo = await takePicture(picture, sample.photo);
    const recipe = parseRecipe(await text.text());
    const found = new Map<string, FoundFile>();
    for (const named of new Set(recipe.coats.flatMap(filesOf))) {
      const name = named.split('/').pop() ?? named;
      const { key, width, height } = await takePicture(await file(`/demo/photos/${name}`), name);
      found.set(named, { file: key, width, height });
    }
    const coats = coatsOf(recipe, newId).map((coat) => withFiles(coat, (named) => found.get(named) as FoundFile));
    const piece = layRecipe(recipe, coats)(newPiece(photo, sample.name));
    await storage.savePiece(piece, `/demo/pieces/${sample.picture}`);
    void get().refresh().catch(complain);
    return piece.id;
  },
  async remove(id) {
    await storage.removePiece(id);
    await get().refresh();
  },
  async duplicate(id) {
    const piece = await storage.loadPiece(id);
    if (!piece) return;
    const card = get().cards?.find((c) => c.id === id);
    await storage.savePiece({ ...piece, id: newId(), name: `${piece.name}, copy`, changed: Date.now() }, card?.picture ?? null);
    await get().refresh();
  },
}));

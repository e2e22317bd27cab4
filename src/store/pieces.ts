import { filesOf, withFiles, type FoundFile } from '../core/piece/pictures';
import { create } from 'zustand';
import { coatsOf, layRecipe, parseRecipe } from '../core/piece/recipe';
import { pieceSchema, type Piece, type PictureRef } from '../core/piece/schema';
import { takePicture } from './files';
import { takeUpLeft } from './leaving';
import { complain } from './notices';
import { newId } from './newId';
import { whilePicturesStay } from './pictures';
import { cardPicture, listPieces, loadPiece, markDeleted, removePiece, savePiece, type PieceCard } from './records';
import { retrySaving } from './saving';
import { space } from './database';
import { hearTabs, tellList } from './tabs';
import { words } from './words';

interface PiecesState {
  cards: PieceCard[] | null;
  /** Pieces that were deleted in the last 30 days. */
  deleted: PieceCard[];
  space: { used: number; quota: number } | null;
  refresh(): Promise<void>;
  /** Makes a piece from a picture file and returns its id; `isAccepted` takes one of which a part is missing (`takePicture`). */
  create(file: Blob, name: string, isAccepted?: boolean): Promise<string>;
  /** Makes a piece from a sample that ships with the application. */
  createSample(sample: Sample): Promise<string>;
  /** Takes a piece off the list; it can be brought back for 30 days. */
  remove(id: string): Promise<void>;
  bringBack(id: string): Promise<void>;
  /** Frees the room of a piece at once and for good. */
  removeForGood(id: string): Promise<void>;
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

const bare = (name: string) =>
  name
    .replace(/\.[a-z0-9]+$/i, '')
    .replace(/[-_]+/g, ' ')
    .trim() || words.pieces.piece;

function newPiece(photo: PictureRef, name: string): Piece {
  const now = Date.now();
  return pieceSchema.parse({ dermatex: 1, id: newId(), name, created: now, changed: now, photo, coats: [] });
}

const file = async (path: string): Promise<Blob> => {
  const response = await fetch(path);
  if (!response.ok) throw new Error(words.pieces.theSampleCouldNotBe);
  return response.blob();
};

export const usePieces = create<PiecesState>((set, get) => ({
  cards: null,
  deleted: [],
  space: null,
  async refresh() {
    await takeUpLeft();
    set({ ...(await listPieces()), space: await space() });
  },
  async create(blob, name, isAccepted = false) {
    return whilePicturesStay(async () => {
      const piece = newPiece(await takePicture(blob, name, isAccepted), bare(name));
      await savePiece(piece);
      listHasChanged();
      return piece.id;
    });
  },
  async createSample(sample) {
    const [picture, text] = await Promise.all([file(`/demo/photos/${sample.photo}`), file(`/demo/pieces/${sample.recipe}`)]);
    const recipe = parseRecipe(await text.text());
    return whilePicturesStay(async () => {
      const photo = await takePicture(picture, sample.photo);
      const found = new Map<string, FoundFile>();
      for (const named of new Set(recipe.coats.flatMap(filesOf))) {
        const name = named.split('/').pop() ?? named;
        const { key, width, height } = await takePicture(await file(`/demo/photos/${name}`), name);
        found.set(named, { file: key, width, height });
      }
      const coats = coatsOf(recipe, newId).map((coat) => withFiles(coat, (named) => found.get(named) as FoundFile));
      const piece = layRecipe(recipe, coats)(newPiece(photo, sample.name));
      await savePiece(piece, { picture: `/demo/pieces/${sample.picture}` });
      listHasChanged();
      return piece.id;
    });
  },
  async remove(id) {
    await markDeleted(id, Date.now());
    listHasChanged();
    await get().refresh();
  },
  async bringBack(id) {
    await markDeleted(id, undefined);
    listHasChanged();
    await get().refresh();
  },
  async removeForGood(id) {
    await removePiece(id);
    listHasChanged();
    // What could not be saved for want of room may fit now.
    retrySaving();
    await get().refresh();
  },
  async duplicate(id) {
    await whilePicturesStay(async () => {
      const piece = await loadPiece(id);
      if (!piece) return;
      const now = Date.now();
      await savePiece({ ...piece, id: newId(), name: `${piece.name}, copy`, created: now, changed: now }, { picture: await cardPicture(id) });
    });
    listHasChanged();
    await get().refresh();
  },
}));

/** Tells the other tabs, and this one's list, which the bench need not wait for. */
function listHasChanged(): void {
  tellList();
  void usePieces.getState().refresh().catch(complain);
}

// Another tab has changed a piece or the list: the list is read again.
hearTabs(({ kind }) => {
  if (kind !== 'wanted' && usePieces.getState().cards) void usePieces.getState().refresh().catch(complain);
});

// For the tests of two tabs.
(globalThis as { dermatexPieces?: typeof usePieces }).dermatexPieces = usePieces;

import { modeById } from '../blend';
import { materialById } from '../materials';
import { sourceByKind } from '../sources';
import type { Coat } from './schema';

/** What a coat is, when nobody has named it. `ownNames` gives the names of imported files by key. */
export function sourceName(source: { kind: string; [key: string]: unknown }, ownNames: Record<string, string> = {}): string {
  if (source.kind === 'material') {
    const id = String(source.id);
    return id.startsWith('own:') ? (ownNames[id.slice(4)] ?? 'Own material') : materialById(id).label;
  }
  if (source.kind === 'cutout' && source.file) return `Cut-out of ${ownNames[String(source.file)] ?? String(source.file)}`;
  if (source.kind === 'picture') return ownNames[String(source.file)] ?? String(source.file);
  return sourceByKind(source.kind).label;
}

/** "Cold-press paper · multiply" */
export function coatName(coat: Coat, ownNames?: Record<string, string>): string {
  return coat.name ?? sourceName(coat.source as { kind: string }, ownNames);
}

export function coatTitle(coat: Coat, ownNames?: Record<string, string>): string {
  return `${coatName(coat, ownNames)} · ${modeById(coat.blend).label.toLowerCase()}`;
}

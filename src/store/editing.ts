import { useState } from 'react';
import { changeCoat, type Edit } from '../core/piece/edits';
import { useBench } from './bench';
import { words } from './words';

type PanelEdit = (key: string, value: unknown) => Edit;

/** The step's name when a control of a titled panel has changed: "Follow the form: horizontal". */
export const stepOf =
  (title: string) =>
  (label: string): string =>
    `${title}: ${label.toLowerCase()}`;

/**
 * The handlers of a panel: while one of its controls is held the edit is shown, and when it is released one step is kept. Steps of the same
 * control in a row become one.
 * @param edit the edit that sets a field to a value
 * @param name the step's name, from the control's label
 * @param run what tells these controls from others, for instance the coat's id and the step's place
 * @param held what is shown while a control is held, where that is not the edit itself
 */
export const panelEdit = (edit: PanelEdit, name: (label: string) => string, run: string, held: PanelEdit = edit) => ({
  onPreview: (key: string, value: unknown): void => useBench.getState().preview(held(key, value)),
  onCommit: (key: string, value: unknown, label: string): void => useBench.getState().change(name(label), edit(key, value), `${run}.${key}`),
});

/** The handlers of a single control, as `panelEdit`. */
export const controlEdit = <V>(edit: (value: V) => Edit, name: string, run: string) => ({
  onPreview: (value: V): void => useBench.getState().preview(edit(value)),
  onCommit: (value: V): void => useBench.getState().change(name, edit(value), run),
});

/** Hides a coat, or shows it again: one step of undo. */
export const setVisible = (id: string, visible: boolean): void =>
  useBench.getState().change(
    visible ? words.editing.showTheCoat : words.editing.hideTheCoat,
    changeCoat(id, () => ({ visible })),
  );

/** An edit that a pointer holds on the picture: shown while it moves, then kept as one step or dropped. */
export class HeldEdit {
  private kept: Edit | null = null;

  /**
   * @param edit what is shown now
   * @param kept what is kept when the pointer lifts, where that is not the edit itself
   */
  show(edit: Edit, kept: Edit = edit): void {
    this.kept = kept;
    useBench.getState().preview(edit);
  }

  /** Keeps what was last shown. Without any movement nothing is kept. */
  keep(name: string, run?: string): void {
    if (this.kept) useBench.getState().change(name, this.kept, run);
    this.kept = null;
  }

  drop(): void {
    this.kept = null;
    useBench.getState().preview(null);
  }
}

/** A held edit of a component's own. */
export const useHeldEdit = (): HeldEdit => useState(() => new HeldEdit())[0];

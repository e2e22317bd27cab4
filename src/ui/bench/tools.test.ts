import { pieceSchema } from '@/core/piece/schema';
import type { Stroke } from '@/core/strokes/schema';
import { useBench } from '@/store/bench';
import { useBrush } from '@/store/brush';
import { useNotices } from '@/store/notices';
import { readyOf, useReady } from '@/store/ready';
import { useSettings } from '@/store/settings';
import * as records from '@/store/records';
import { flush } from '@/store/saving';
import { openPiece } from '@/store/session';
import type { ToolPoint } from './gestures';
import { lineTool, neutralTool, uprightsTool } from './readyTools';
import { layTool } from './layTool';
import { brushTool } from './tools';
import { useViewport } from './viewport';

jest.mock('@/store/engine', () => ({ getEngine: async () => ({}) }));

const at = (x: number, y: number, more: Partial<ToolPoint> = {}): ToolPoint => ({
  x,
  y,
  px: x * 900,
  py: y * 600,
  pressure: 1,
  shift: false,
  ...more,
});
const bench = () => useBench.getState();
const strokes = () => (bench().piece?.coats[0].mask.parts[0] as unknown as { strokes: Stroke[] } | undefined)?.strokes ?? [];

beforeEach(async () => {
  await flush();
  const piece = pieceSchema.parse({
    dermatex: 1,
    id: 'p',
    name: 'P',
    created: 1,
    changed: 1,
    photo: { key: 'k', name: 'k', width: 900, height: 600 },
    coats: [{ id: 'a', source: { kind: 'material', id: 'paper.cold-press' } }],
  });
  await records.savePiece(piece);
  await openPiece('p');
  useViewport.getState().fit({ width: 900, height: 600 });
  useBrush.getState().set({ straight: false, does: 'take', strength: 0.3 });
  useReady.getState().set({ tool: 'frame', line: null, first: null });
  useNotices.setState({ list: [] });
});
afterAll(() => flush());

describe('the brush', () => {
  it('paints one stroke as one step of undo, shown while it is made', () => {
    brushTool.down(at(0.2, 0.2));
    brushTool.move([at(0.3, 0.2), at(0.3001, 0.2), at(0.4, 0.25)]);
    expect(bench().draft?.coats[0].mask.parts).toHaveLength(1);
    expect(bench().piece?.coats[0].mask.parts).toHaveLength(0);
    brushTool.up(at(0.4, 0.25));
    // Points that cannot be told apart are left out.
    expect(strokes()[0].points.map((p) => p[0])).toEqual([0.2, 0.3, 0.4]);
    expect(bench().undo()).toBe('Erase');
    expect(bench().piece?.coats[0].mask.parts).toHaveLength(0);
  });
  it('takes pen pressure, unless it is switched off', () => {
    brushTool.down(at(0.5, 0.5, { pressure: 0.4 }));
    brushTool.up(at(0.5, 0.5));
    useSettings.setState({ penPressure: false });
    brushTool.down(at(0.6, 0.5, { pressure: 0.4 }));
    brushTool.up(at(0.6, 0.5));
    useSettings.setState({ penPressure: true });
    expect(strokes().map((s) => s.points[0][2])).toEqual([0.4, 1]);
  });
  it('goes in a line from the last tap with Shift, also from outside the picture', () => {
    brushTool.down(at(-0.1, 0.5));
    brushTool.up(at(-0.1, 0.5));
    brushTool.down(at(0.7, 0.6, { shift: true }));
    brushTool.up(at(0.7, 0.6));
    expect(strokes()[1].points.map(([x]) => x)).toEqual([-0.1, 0.7]);
  });
  it('is taken back by a second finger', () => {
    brushTool.down(at(0.2, 0.2));
    brushTool.cancel();
    expect(bench().draft).toBeNull();
    brushTool.up(at(0.3, 0.3));
    expect(strokes()).toHaveLength(0);
  });
});

it('dragging a material moves it by as much as the pointer, and a tap does not', () => {
  layTool.down(at(0.5, 0.5));
  layTool.move([at(0.6, 0.45)]);
  expect(bench().draft?.coats[0].lay).toMatchObject({ x: 0.1, y: -0.05 });
  layTool.up(at(0.6, 0.45));
  expect(bench().piece?.coats[0].lay).toMatchObject({ x: 0.1, y: -0.05 });
  layTool.down(at(0.5, 0.5));
  layTool.up(at(0.5, 0.5));
  expect(bench().past).toHaveLength(1);
});

describe('readying by a stroke', () => {
  it('a line along the horizon turns the frame', () => {
    lineTool.down(at(0.1, 0.5));
    lineTool.move([at(0.9, 0.5 + 0.8 * 1.5 * Math.tan((2 * Math.PI) / 180))]);
    expect(useReady.getState().line).not.toBeNull();
    lineTool.up(at(0.9, 0.5 + 0.8 * 1.5 * Math.tan((2 * Math.PI) / 180)));
    const { piece } = bench();
    expect(piece && readyOf(piece).crop.turn).toBeCloseTo(2, 1);
    expect(useReady.getState()).toMatchObject({ line: null, tool: 'frame' });
    expect(useNotices.getState().list[0].text).toBe('Turned to 2.0°.');
  });
  it('a tap too short for a line does nothing', () => {
    lineTool.down(at(0.5, 0.5));
    lineTool.up(at(0.505, 0.5));
    expect(bench().past).toHaveLength(0);
  });
  it('two lines make verticals upright; lines that meet in the picture are refused with a sentence', () => {
    useReady.getState().set({ tool: 'uprights' });
    const draw = (a: ToolPoint, b: ToolPoint) => (uprightsTool.down(a), uprightsTool.up(b));
    draw(at(0.3, 0.9), at(0.35, 0.1));
    expect(useReady.getState().first).not.toBeNull();
    draw(at(0.7, 0.9), at(0.65, 0.1));
    const { piece } = bench();
    expect(piece && readyOf(piece).perspective?.corners).toHaveLength(4);
    expect(useReady.getState()).toMatchObject({ first: null, tool: 'frame' });
    draw(at(0.1, 0), at(0.6, 1));
    draw(at(0.9, 0), at(0.4, 1));
    expect(useNotices.getState().list.at(-1)?.text).toContain('meet too near the picture');
    expect(bench().past).toHaveLength(1);
  });
  it('a tap picks what is to be grey, kept within the picture', () => {
    neutralTool.up(at(1.2, 0.4));
    const { piece } = bench();
    expect(piece && readyOf(piece).whiteBalance).toMatchObject({ neutral: [1, 0.4], warmth: 0, tint: 0, paper: 0 });
    expect(bench().undo()).toBe('Pick neutral');
  });
});

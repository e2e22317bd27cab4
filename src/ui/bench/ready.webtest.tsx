import '@testing-library/jest-dom';
import { act, fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import { pieceSchema } from '@/core/piece/schema';
import { readySchema } from '@/core/ready/schema';
import { useBench } from '@/store/bench';
import { readyOf, useReady } from '@/store/ready';
import { Fold } from '../kit/Fold';
import { PictureCards } from '../kit/PictureCards';
import { lightTheme } from '../theme';
import { ReadyStep } from './facets/ReadyStep';
import { SpotsFacet } from './facets/SpotsFacet';
import { readyToolOf, spotTool } from './readyTools';
import { HuePlot, HistogramPlot, ParadePlot } from './scopePlots';

jest.mock('@/store/engine', () => ({ getEngine: async () => ({ spotSource: async () => [0.1, 0] }) }));

const show = (node: React.ReactNode) => render(<PaperProvider theme={lightTheme}>{node}</PaperProvider>);
const piece = (ready: object = {}) =>
  pieceSchema.parse({
    dermatex: 1,
    id: 'p',
    name: 'Pier',
    created: 1,
    changed: 1,
    photo: { key: 'k', name: 'k.png', width: 1000, height: 500 },
    ready: readySchema.parse(ready),
  });
const now = () => readyOf(useBench.getState().piece!);
beforeEach(() => {
  useBench.setState({ piece: piece(), draft: null, chosen: null, past: [], future: [] });
  useReady.setState({ spot: null, stroke: null, spotSize: 30, tool: 'frame' });
});

describe('a fold', () => {
  it('opens and closes by its name, and is open to begin with when something in it was changed', () => {
    show(
      <>
        <Fold title="Levels">inside levels</Fold>
        <Fold title="Curves" changed>
          inside curves
        </Fold>
      </>,
    );
    expect(screen.queryByText('inside levels')).toBeNull();
    expect(screen.getByText('inside curves')).toBeInTheDocument();
    const head = screen.getByRole('button', { name: /Levels/ });
    expect(head).toHaveAttribute('aria-expanded', 'false');
    fireEvent.click(head);
    expect(screen.getByText('inside levels')).toBeInTheDocument();
    expect(screen.getByRole('img', { name: 'changed' })).toBeInTheDocument();
  });
});

it('picture cards say which is taken and hand over a press', () => {
  const press = jest.fn();
  show(
    <PictureCards
      label="Start"
      cards={[
        { name: 'Etched', picture: null, press },
        { name: 'Storm light', on: true, picture: null, press },
      ]}
    />,
  );
  expect(screen.getByRole('button', { name: 'Storm light' })).toHaveAttribute('aria-pressed', 'true');
  fireEvent.click(screen.getByRole('button', { name: 'Etched' }));
  expect(press).toHaveBeenCalledTimes(1);
});

describe('a step of readying', () => {
  it('is a panel of its schema, kept as named steps, and taken back to the photo as it was', () => {
    show(<ReadyStep field="localContrast" />);
    const typed = screen.getByRole('textbox', { name: 'Local contrast, typed' });
    fireEvent.change(typed, { target: { value: '35' } });
    fireEvent.blur(typed);
    expect(now().localContrast?.amount).toBeCloseTo(0.35, 6);
    expect(useBench.getState().past.map((s) => s.name)).toEqual(['Local contrast: local contrast']);
    fireEvent.click(screen.getByRole('button', { name: 'Local contrast as photographed' }));
    expect(now().localContrast).toBeUndefined();
  });
  it('has no way back when nothing was changed', () => {
    show(<ReadyStep field="noise" />);
    expect(screen.queryByRole('button', { name: /as photographed/ })).toBeNull();
  });
});

describe('spots', () => {
  it('say how many there are, and are put back one by one or all together', () => {
    useBench.setState({
      piece: piece({
        spots: [
          { points: [[0.2, 0.2]], from: [0.1, 0] },
          { points: [[0.6, 0.6]], from: [0.1, 0] },
        ],
      }),
    });
    useReady.setState({ spot: 1 });
    show(<SpotsFacet />);
    expect(screen.getByTestId('spot-count')).toHaveTextContent('2 spots removed. Number 2 is chosen.');
    fireEvent.click(screen.getByRole('button', { name: 'Restore' }));
    expect(now().spots).toHaveLength(1);
    fireEvent.click(screen.getByRole('button', { name: 'Restore all' }));
    expect(now().spots).toEqual([]);
    expect(screen.getByTestId('spot-count')).toHaveTextContent('No spots removed yet.');
  });
  it('come from a stroke, thinned to what the tip can tell apart; one taken back leaves nothing', async () => {
    const at = (x: number, y: number) => ({ x, y, px: x * 800, py: y * 400, pressure: 1, shift: false });
    spotTool.down(at(0.2, 0.5));
    spotTool.move(Array.from({ length: 60 }, (_, i) => at(0.2 + 0.3 * ((i + 1) / 60), 0.5)));
    expect(useReady.getState().stroke!.length).toBeGreaterThan(20);
    await act(async () => {
      spotTool.up(at(0.5, 0.5));
      await new Promise((resolve) => setTimeout(resolve, 20));
    });
    const [spot] = now().spots;
    expect(spot.points[0]).toEqual([0.2, 0.5]);
    expect(spot.points[spot.points.length - 1]).toEqual([0.5, 0.5]);
    // 300 pixels long under a tip of 15: no more than one point every 2.25 pixels.
    expect(spot.points.length).toBeLessThan(140);
    expect(spot.from).toEqual([0.1, 0]);
    expect(useReady.getState().stroke).toBeNull();
    spotTool.down(at(0.1, 0.1));
    spotTool.cancel();
    expect(useReady.getState().stroke).toBeNull();
    expect(now().spots).toHaveLength(1);
  });
  it('are what a pointer does in their own facet only', () => {
    expect(readyToolOf('spots', 'frame')).toBe(spotTool);
    expect(readyToolOf('light', 'frame')).toBeNull();
    expect(readyToolOf('frame', 'bend')).not.toBeNull();
    expect(readyToolOf('frame', 'frame')).toBeNull();
    expect(readyToolOf('colour', 'hue')).not.toBeNull();
    expect(readyToolOf('frame', 'line')).not.toBeNull();
    expect(readyToolOf('colour', 'neutral')).not.toBeNull();
  });
});

describe('plots', () => {
  const counts = (f: (i: number) => number) => Uint32Array.from({ length: 256 }, (_, i) => f(i));
  const histogram = { luma: counts((i) => i), red: counts(() => 5), green: counts(() => 5), blue: counts(() => 5), pixels: 1000, black: 0, white: 0 };
  const paths = (node: React.ReactNode) => show(node).container.querySelectorAll('path').length;
  it('draw the photo as it was dashed into the histogram', () => {
    expect(paths(<HistogramPlot now={histogram} before={null} />)).toBe(4);
    expect(paths(<HistogramPlot now={histogram} before={histogram} />)).toBe(5);
  });
  it('leave out a channel of the parade without pixels, and hues that are not there', () => {
    const empty = {
      columns: 4,
      counts: [new Uint32Array(1024), new Uint32Array(1024), new Uint32Array(1024)] as [Uint32Array, Uint32Array, Uint32Array],
    };
    expect(paths(<ParadePlot parade={empty} />)).toBe(0);
    const full = { ...empty, counts: empty.counts.map((c) => c.map((_, i) => (i % 256 === 100 ? 9 : 0))) as typeof empty.counts };
    expect(paths(<ParadePlot parade={full} />)).toBe(9);
    const wheel = { share: Float32Array.of(0.4, 0, 0.2), reach: Float32Array.of(0.5, 0, 0.3), mean: [0.1, 0.1] as [number, number] };
    expect(paths(<HuePlot wheel={wheel} />)).toBe(2);
  });
});

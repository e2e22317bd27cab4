import '@testing-library/jest-dom';
import { fireEvent, render, screen } from '@testing-library/react';
import { PaperProvider } from 'react-native-paper';
import { usePicking } from '@/store/picking';
import { lightTheme } from '../theme';
import { Colour } from './Colour';
import { Dial } from './Dial';

const wrap = (node: React.ReactNode) => render(<PaperProvider theme={lightTheme}>{node}</PaperProvider>);

describe('a colour', () => {
  const setUp = () => {
    const onPreview = jest.fn();
    const onCommit = jest.fn();
    wrap(<Colour label="Shadows" value="#102030" offered={['#aa3311', '#223344']} onPreview={onPreview} onCommit={onCommit} />);
    return { onPreview, onCommit };
  };
  it('can be typed, with or without its sign; nonsense changes nothing', () => {
    const { onCommit } = setUp();
    const field = screen.getByRole('textbox', { name: 'Shadows, typed' });
    for (const [text, wanted] of [
      ['#A0B1C2', '#a0b1c2'],
      ['ffee00', '#ffee00'],
    ]) {
      fireEvent.change(field, { target: { value: text } });
      fireEvent.blur(field);
      expect(onCommit).toHaveBeenLastCalledWith(wanted);
    }
    onCommit.mockClear();
    for (const text of ['', 'red', '#12']) {
      fireEvent.change(field, { target: { value: text } });
      fireEvent.blur(field);
    }
    expect(onCommit).not.toHaveBeenCalled();
    expect(field).toHaveValue('#102030');
  });
  it('shows while the system’s picker is open and is kept once when it closes', () => {
    const { onPreview, onCommit } = setUp();
    const patch = screen.getByLabelText('Shadows');
    fireEvent.input(patch, { target: { value: '#445566' } });
    expect(onPreview).toHaveBeenLastCalledWith('#445566');
    expect(onCommit).not.toHaveBeenCalled();
    fireEvent.blur(patch);
    fireEvent.blur(patch);
    expect(onCommit.mock.calls).toEqual([['#445566']]);
  });
  it('can be taken from those offered', () => {
    const { onCommit } = setUp();
    fireEvent.click(screen.getByRole('button', { name: 'Shadows: #223344 of the photo' }));
    expect(onCommit).toHaveBeenCalledWith('#223344');
  });
  it('can be asked for on the picture, and the question taken back', () => {
    const { onCommit } = setUp();
    fireEvent.click(screen.getByRole('button', { name: 'Pick shadows on the picture' }));
    expect(usePicking.getState().asked?.words).toBe('Tap the colour for “shadows”');
    usePicking.getState().asked?.take('#010203');
    expect(onCommit).toHaveBeenCalledWith('#010203');
    fireEvent.click(screen.getByRole('button', { name: 'Stop picking' }));
    expect(usePicking.getState().asked).toBeNull();
  });
});

describe('a dial', () => {
  const setUp = (value: number) => {
    const onPreview = jest.fn();
    const onCommit = jest.fn();
    wrap(<Dial label="Light from" value={value} neutral={315} onPreview={onPreview} onCommit={onCommit} />);
    const dial = screen.getByRole('slider', { name: 'Light from' });
    dial.getBoundingClientRect = () => ({ left: 0, top: 0, width: 100, height: 100 }) as DOMRect;
    dial.setPointerCapture = () => undefined;
    const pointer = (type: string, x: number, y: number) => fireEvent(dial, new MouseEvent(type, { bubbles: true, clientX: x, clientY: y }));
    return { dial, pointer, onPreview, onCommit };
  };
  it('points where the light comes from, clockwise from the top, and holds at eighths of a turn', () => {
    const { pointer, onPreview, onCommit } = setUp(315);
    pointer('pointerdown', 50, 5);
    expect(onPreview).toHaveBeenLastCalledWith(0);
    pointer('pointermove', 95, 52);
    expect(onPreview).toHaveBeenLastCalledWith(90);
    pointer('pointermove', 80, 95);
    expect(onPreview).toHaveBeenLastCalledWith(146);
    expect(onCommit).not.toHaveBeenCalled();
    pointer('pointerup', 5, 50);
    expect(onCommit).toHaveBeenCalledWith(270);
  });
  it('goes by keys in single degrees, fifteen with Shift, eighths by page keys, and round past the top', () => {
    const { dial, onCommit } = setUp(350);
    fireEvent.keyDown(dial, { key: 'ArrowRight' });
    expect(onCommit).toHaveBeenLastCalledWith(351);
    fireEvent.keyDown(dial, { key: 'ArrowRight', shiftKey: true });
    expect(onCommit).toHaveBeenLastCalledWith(5);
    fireEvent.keyDown(dial, { key: 'PageUp' });
    expect(onCommit).toHaveBeenLastCalledWith(35);
    fireEvent.doubleClick(dial);
    expect(onCommit).toHaveBeenLastCalledWith(315);
  });
});

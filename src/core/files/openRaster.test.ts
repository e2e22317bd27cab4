import { BadFile } from './inspect';
import { readStack, stackXml, type StackEntry, type StackGroup, type StackLayer } from './openRaster';

const layer = (more: Partial<StackLayer>): StackLayer => ({
  name: 'a',
  src: 'data/a.png',
  x: 0,
  y: 0,
  opacity: 1,
  visible: true,
  mode: 'normal',
  ...more,
});
const stack = (more: Partial<StackGroup>, layers: StackEntry[]): StackGroup => ({
  name: '',
  opacity: 1,
  visible: true,
  mode: 'normal',
  isolated: false,
  ...more,
  layers,
});
const read = (xml: string) => readStack(xml, '“x.ora”');

it('what is written is read again without loss, also names that XML has to escape', () => {
  const layers = [
    layer({ name: 'The photo' }),
    layer({ name: 'Paper & "cracks" <old> ö', src: 'data/b.png', x: 12, y: -7, opacity: 0.35, mode: 'multiply' }),
    layer({ name: 'Hidden', src: 'data/c.png', visible: false, mode: 'plus-lighter' }),
    stack({ name: 'Wear', isolated: true, opacity: 0.5, mode: 'screen' }, [layer({ name: 'Dust' }), stack({ name: 'Empty' }, [])]),
  ];
  expect(read(stackXml({ width: 640, height: 480 }, layers))).toEqual({ width: 640, height: 480, layers });
});

it('the uppermost layer comes first, as the specification asks', () => {
  const xml = stackXml({ width: 1, height: 1 }, [layer({ name: 'below' }), layer({ name: 'above' })]);
  expect(xml.indexOf('above')).toBeLessThan(xml.indexOf('below'));
  expect(xml).toMatch(/^<\?xml version="1.0" encoding="UTF-8"\?>\n<image version="0.0.6" w="1" h="1"/);
});

it('a mode that has no name there does not go out', () => {
  expect(() => stackXml({ width: 1, height: 1 }, [layer({ mode: 'linear-burn' })])).toThrow('OpenRaster has no name for the mode linear-burn.');
});

it('foreign files are read: stacks within stacks with their offsets, opacity and visibility, defaults, and modes that nobody knows', () => {
  const xml = `<?xml version='1.0' encoding='UTF-8'?>
    <image w='300' h="200" version="0.0.3"><stack name="root" opacity="1.0">
      <layer name="top" src="data/1.png" composite-op="vendor:glitter"/>
      <stack x="10" y="20" opacity="0.5" visibility="hidden">
        <layer src="data/2.png" x="3" opacity="0.5" composite-op="svg:screen"/>
        <stack y="1"><layer src="data/3.png" visibility="visible"/></stack>
      </stack>
      <filter kind="unknown"/>
      <layer name="ground" src="data/4.png" opacity="2" x=""/>
    </stack></image>`;
  expect(read(xml)).toEqual({
    width: 300,
    height: 200,
    layers: [
      layer({ name: 'ground', src: 'data/4.png' }),
      stack({ opacity: 0.5, visible: false, isolated: true }, [
        stack({}, [layer({ name: '', src: 'data/3.png', x: 10, y: 21 })]),
        layer({ name: '', src: 'data/2.png', x: 13, y: 20, opacity: 0.5, mode: 'screen' }),
      ]),
      layer({ name: 'top', src: 'data/1.png' }),
    ],
  });
});

it('a stack is isolated where it says so, and where its opacity or mode asks for it (OpenRaster 0.0.6; the default from memory)', () => {
  const isolated = (attributes: string) => {
    const [group] = read(`<image w="1" h="1"><stack><stack ${attributes}><layer src="a.png"/></stack></stack></image>`).layers;
    return (group as StackGroup).isolated;
  };
  expect(['', 'isolation="auto"', 'isolation="isolate"', 'opacity="0.5"', 'composite-op="svg:multiply"'].map(isolated)).toEqual([
    false,
    false,
    true,
    true,
    true,
  ]);
});

it('a root that is not whole is kept as a stack', () => {
  expect(read('<image w="1" h="1"><stack opacity="0.5"><layer src="a.png"/></stack></image>').layers).toHaveLength(1);
  expect(read('<image w="1" h="1"><layer src="a.png"/></image>').layers).toEqual([]);
});

it.each([
  ['no XML', 'Dear keeper'],
  ['a declaration that does not end', '<?xml version="1.0"><image w="1" h="1"><stack/></image>'],
  ['an open tag', '<image w="1" h="1"><stack>'],
  ['no size', '<image><stack/></image>'],
  ['another root', '<svg w="1" h="1"/>'],
  ['a document type with entities', '<!DOCTYPE image [<!ENTITY a "aaaa">]><image w="1" h="1"><stack/></image>'],
  ['stacks without end', `<image w="1" h="1">${'<stack>'.repeat(60)}${'</stack>'.repeat(60)}</image>`],
])('a list with %s ends in one sentence', (_name, xml) => {
  expect(() => read(xml)).toThrow(BadFile);
  expect(() => read(xml)).toThrow('“x.ora” cannot be read: its list of layers is damaged');
});

it('too many layers are said', () => {
  const xml = `<image w="1" h="1"><stack>${'<layer src="a.png"/>'.repeat(201)}</stack></image>`;
  expect(() => read(xml)).toThrow('“x.ora” has more than 200 layers; merge some where it was made.');
});

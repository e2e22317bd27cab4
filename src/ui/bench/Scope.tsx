import { useEffect } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import Svg, { Line, Path } from 'react-native-svg';
import { castSentence } from '@/core/measure/histogram';
import { useScopes } from '@/store/scopes';
import { useColours } from '../theme';

const WIDTH = 256;
const HEIGHT = 72;

/** Counts as an outline from the left to the right; the square root keeps small counts visible. */
function outline(counts: Uint32Array, most: number): string {
  const y = (v: number) => (HEIGHT * (1 - Math.sqrt(Math.min(1, v / most)))).toFixed(1);
  return `M0 ${HEIGHT}${Array.from(counts, (v, i) => `L${i} ${y(v)}`).join('')}L255 ${HEIGHT}`;
}

/** The histogram of what is in view: luma filled, red, green and blue as lines; and in words what it shows. */
export function Scope() {
  const c = useColours();
  const histogram = useScopes((s) => s.histogram);
  useEffect(() => {
    const count = (by: number) => useScopes.setState((s) => ({ watchers: s.watchers + by }));
    count(1);
    // What is on the canvas was drawn before anybody watched.
    window.dispatchEvent(new Event('dermatex:measure'));
    return () => count(-1);
  }, []);
  if (!histogram) return <View style={{ height: HEIGHT + 40 }} />;
  const { luma, red, green, blue, pixels, black, white } = histogram;
  // Both ends are left out of the height: a clipped peak would flatten all else.
  const most = Math.max(1, ...luma.slice(1, 255), ...red.slice(1, 255), ...green.slice(1, 255), ...blue.slice(1, 255));
  const percent = (n: number) => `${((100 * n) / pixels).toFixed(n > 0 && n < pixels / 100 ? 1 : 0)} %`;
  const cast = castSentence(histogram);
  return (
    <View style={{ paddingVertical: 8 }} testID="scope">
      <View
        style={{ backgroundColor: c.field, borderRadius: 2 }}
        aria-label={`Histogram of what is in view: ${percent(black)} black, ${percent(white)} white`}
        role="img"
      >
        <Svg width="100%" height={HEIGHT} viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none">
          {[64, 128, 192].map((x) => (
            <Line key={x} x1={x} x2={x} y1={0} y2={HEIGHT} stroke={c.line} strokeWidth={1} />
          ))}
          <Path d={outline(luma, most)} fill={c.quiet} fillOpacity={0.45} />
          <Path d={outline(red, most)} fill="none" stroke="#b8433c" strokeWidth={1.2} />
          <Path d={outline(green, most)} fill="none" stroke="#3f8a4b" strokeWidth={1.2} />
          <Path d={outline(blue, most)} fill="none" stroke="#3d6fb0" strokeWidth={1.2} />
        </Svg>
      </View>
      <View style={{ flexDirection: 'row', justifyContent: 'space-between', paddingTop: 3 }}>
        <Text style={{ color: c.quiet, fontSize: 13 }}>{percent(black)} black</Text>
        <Text style={{ color: c.quiet, fontSize: 13 }}>{percent(white)} white</Text>
      </View>
      {cast ? <Text style={{ color: c.ink, paddingTop: 4 }}>{cast}</Text> : null}
    </View>
  );
}

import { useEffect, useId, useRef, useState, type CSSProperties } from 'react';
import { StyleSheet, View } from 'react-native';
import { Text } from 'react-native-paper';
import { usePicking } from '@/store/picking';
import { SANS_MEDIUM, useColours } from '../theme';
import { Act } from './Act';
import { words } from '../words';

interface ColourProps {
  label: string;
  /** #rrggbb */
  value: string;
  help?: string;
  /** Colours to take at a tap, those of the photo for example. */
  offered?: readonly string[];
  onPreview?(value: string): void;
  onCommit(value: string): void;
}

/** A colour: its patch opens the system's picker; it can be typed, taken from those offered, or picked on the picture. */
export function Colour({ label, value, help, offered = [], onPreview, onCommit }: ColourProps) {
  const c = useColours();
  const id = useId();
  const [typed, setTyped] = useState<string | null>(null);
  const asked = usePicking((s) => s.asked);
  const request = words.colour.tapTheColourFor(label.toLowerCase());
  const picking = asked?.words === request;
  // React tells of every colour on the way; the one that stays is told by the element's own event, or when it is left.
  const live = useRef<string | null>(null);
  const system = useRef<HTMLInputElement>(null);
  const settle = () => {
    if (live.current !== null) onCommit(live.current);
    live.current = null;
  };
  const latest = useRef(settle);
  useEffect(() => void (latest.current = settle));
  useEffect(() => {
    const input = system.current;
    const done = () => latest.current();
    input?.addEventListener('change', done);
    return () => input?.removeEventListener('change', done);
  }, []);
  const keep = () => {
    if (typed !== null && /^#?[0-9a-f]{6}$/i.test(typed.trim())) onCommit(`#${typed.trim().replace('#', '').toLowerCase()}`);
    setTyped(null);
  };
  return (
    <View style={styles.all}>
      <View style={styles.row}>
        <Text style={{ color: c.ink, fontSize: 15, flex: 1 }} nativeID={id}>
          {label}
        </Text>
        <input
          aria-label={words.common.typed(label)}
          value={typed ?? value}
          spellCheck={false}
          onChange={(e) => setTyped(e.target.value)}
          onFocus={(e) => e.target.select()}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
          onBlur={keep}
          style={{ ...field, color: c.ink, fontFamily: SANS_MEDIUM }}
        />
        <input
          type="color"
          aria-label={label}
          value={value}
          onChange={(e) => {
            live.current = e.currentTarget.value;
            onPreview?.(live.current);
          }}
          ref={system}
          onBlur={settle}
          style={{ ...patch, borderColor: c.line }}
        />
      </View>
      <View style={styles.offers}>
        {offered.map((hex) => (
          <button
            key={hex}
            type="button"
            aria-label={words.colour.ofThePhoto(label, hex)}
            aria-pressed={hex === value}
            onClick={() => onCommit(hex)}
            style={{ ...offer, background: hex, borderColor: hex === value ? c.accent : c.line }}
          />
        ))}
        <Act
          plain
          icon="eyedropper"
          onPress={() => (picking ? usePicking.getState().stop() : usePicking.getState().ask(request, onCommit))}
          accessibilityLabel={picking ? words.common.stopPicking : words.colour.pickNamedOnThePicture(label.toLowerCase())}
        >
          {picking ? words.common.stopPicking : words.colour.pickOnThePicture}
        </Act>
      </View>
      {help ? <Text style={{ color: c.quiet, fontSize: 13 }}>{help}</Text> : null}
    </View>
  );
}

const field: CSSProperties = { width: 84, height: 44, border: 'none', background: 'transparent', textAlign: 'right', fontSize: 15, padding: 0 };
const patch: CSSProperties = { width: 52, height: 44, padding: 2, border: '1px solid', borderRadius: 2, background: 'none', cursor: 'pointer' };
const offer: CSSProperties = { width: 44, height: 44, border: '2px solid', borderRadius: 2, cursor: 'pointer', padding: 0 };
const styles = StyleSheet.create({
  all: { paddingVertical: 6, gap: 4 },
  row: { flexDirection: 'row', alignItems: 'center', gap: 10 },
  offers: { flexDirection: 'row', flexWrap: 'wrap', gap: 6, alignItems: 'center' },
});

import { useCallback, useEffect, useMemo, useRef, useState, type CSSProperties, type PointerEvent } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { families } from '@/core/materials';
import { candidatesOf, familyOf, OWN, subjects, subjectsFor, type Candidate, type Subject } from '@/core/piece/candidates';
import { findCoat } from '@/core/piece/groups';
import type { Coat } from '@/core/piece/schema';
import { useBench } from '@/store/bench';
import { variedSteps } from '@/core/piece/variations';
import { cellRegion, drawCells, useContact, type CellPlace } from '@/store/contact';
import { complain } from '@/store/notices';
import { labelOf, sourceOf, useOwn } from '@/store/own';
import { useTrying } from '@/store/trying';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Choice } from '../../kit/Choice';
import { Toggle } from '../../kit/Toggle';
import { SANS, SANS_MEDIUM, useColours } from '../../theme';
import { useViewport } from '../viewport';
import { useWipe } from '../Wipe';
import { words } from '../../words';

/** The picture in many ways side by side: looking at one tries it on the bench, two can be wiped against each other, one is taken. */
export function ContactFacet({ coat: shown }: { coat: Coat }) {
  const c = useColours();
  const { change, preview, openFacet } = useBench.getState();
  // What is only tried does not change what is offered.
  const piece = useBench((s) => s.piece);
  const coat = (piece && findCoat(piece, shown.id)) ?? shown;
  const offered = subjectsFor(coat);
  const [wanted, setSubject] = useState<Subject>(() => useContact.getState().subject);
  const subject = offered.includes(wanted) ? wanted : 'modes';
  const [family, setFamily] = useState(familyOf(coat));
  const [place, setPlace] = useState<CellPlace['kind']>('whole');
  const [tried, setTried] = useState<string | null>(null);
  const [marked, setMarked] = useState<string[]>([]);
  const shelf = useOwn((s) => s.list);
  const own = useMemo(() => shelf.map((o) => ({ key: o.key, name: labelOf(o), source: sourceOf(o) })), [shelf]);
  const steps = variedSteps(coat);
  const [chosenStep, setStep] = useState(() => useContact.getState().step);
  const step = steps.some((s) => s.value === chosenStep) ? chosenStep : steps[0]?.value;
  const list = useMemo(() => candidatesOf(coat, subject, family, own, step), [coat, subject, family, own, step]);
  const images = useCells(piece, coat.id, list, place);
  useEffect(
    () => () => {
      useBench.getState().preview(null);
      useTrying.setState({ way: null });
      useWipe.setState({ wipe: null });
      useContact.setState({ subject: 'modes', step: '' });
    },
    [],
  );
  const take = (one: Candidate) => {
    setTried(null);
    useTrying.setState({ way: null });
    change(words.common.useNamed(one.name.toLowerCase()), one.edit);
  };
  const attempt = (one: Candidate | null) => {
    setTried(one?.key ?? null);
    useTrying.setState({ way: one ? { name: one.name, keep: () => take(one) } : null });
    preview(one ? one.edit : null);
  };
  const mark = (key: string) => setMarked((now) => (now.includes(key) ? now.filter((k) => k !== key) : [...now, key].slice(-2)));
  const pair = marked.map((key) => list.find((one) => one.key === key)).filter((one) => one !== undefined);
  const wiped = pair.map((one) => one.key).join();
  useEffect(() => {
    useWipe.setState({ wipe: pair.length === 2 ? { coat: coat.id, pair } : null });
    // The marked ones are told apart by their keys: their objects are new at every drawing.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [wiped, coat.id]);
  const current = list.find((one) => one.key === tried);
  const holdBefore = (on: boolean) => preview(on ? null : (current?.edit ?? null));
  const reset = () => {
    attempt(null);
    setMarked([]);
  };
  return (
    <View style={{ gap: 8 }}>
      <Choice
        bare
        scrolls
        label={words.contact.whatIsCompared}
        options={subjects.filter((s) => offered.includes(s.id)).map((s) => ({ value: s.id, label: s.label }))}
        value={subject}
        onChange={(v) => {
          reset();
          setSubject(v);
        }}
      />
      {subject === 'materials' ? (
        <Choice
          bare
          scrolls
          label={words.common.family}
          options={[
            ...(own.length > 0 ? [{ value: OWN, label: words.common.yourOwn }] : []),
            ...families.map((f) => ({ value: f.id as string, label: f.label })),
          ]}
          value={family}
          onChange={(v) => {
            reset();
            setFamily(v);
          }}
        />
      ) : null}
      {subject === 'step' && steps.length > 1 ? (
        <Choice
          bare
          scrolls
          label={words.contact.whichStep}
          options={steps}
          value={step}
          onChange={(v) => {
            reset();
            setStep(v);
          }}
        />
      ) : null}
      {pair.length === 2 ? (
        <Acts>
          {pair.map((one) => (
            <Act key={one.key} onPress={() => take(one)}>
              {words.common.useNamed(one.name)}
            </Act>
          ))}
          <Act plain onPress={() => setMarked([])}>
            {words.contact.stopComparing}
          </Act>
        </Acts>
      ) : null}
      <div role="group" aria-label={words.contact.contactSheet} style={grid}>
        {list.map((one) => (
          <Cell
            key={one.key}
            one={one}
            image={images.get(one.key)}
            tried={tried === one.key}
            marked={marked.includes(one.key)}
            onTry={() => tried !== one.key && attempt(one)}
            onLeave={() => attempt(null)}
            onTake={() => take(one)}
            onMark={() => mark(one.key)}
          />
        ))}
      </div>
      <Toggle label={words.contact.centreAtFullSize} value={place === 'detail'} onChange={(on) => setPlace(on ? 'detail' : 'whole')} />
      <Text style={{ color: c.quiet, fontSize: 13 }}>{words.contact.tapOneToTryIt}</Text>
      <Acts>
        <Act disabled={!current} onPressIn={() => holdBefore(true)} onPressOut={() => holdBefore(false)}>
          {words.contact.holdToSeeThePhoto}
        </Act>
        <Act plain onPress={() => openFacet('blend')}>
          {words.contact.backToTheSliders}
        </Act>
      </Acts>
    </View>
  );
}

/** Keeps the way that is tried; it stands beside the title. */
export function UseWay() {
  const c = useColours();
  const way = useTrying((s) => s.way);
  return (
    <Act plain disabled={!way} textColor={c.accent} onPress={() => way?.keep()}>
      {words.common.useIt}
    </Act>
  );
}

interface CellProps {
  one: Candidate;
  image?: ImageData;
  tried: boolean;
  marked: boolean;
  onTry(): void;
  onLeave(): void;
  onTake(): void;
  onMark(): void;
}

/** True if the mouse itself has moved, rather than the sheet under a resting mouse. */
const pointed = (e: PointerEvent) => e.pointerType === 'mouse' && (e.movementX !== 0 || e.movementY !== 0);

function Cell({ one, image, tried, marked, onTry, onLeave, onTake, onMark }: CellProps) {
  const c = useColours();
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    if (!image || !canvas.current) return;
    canvas.current.width = image.width;
    canvas.current.height = image.height;
    canvas.current.getContext('2d')?.putImageData(image, 0, 0);
  }, [image]);
  const on = tried || one.now;
  return (
    <div style={{ position: 'relative' }} data-cell={one.key} data-drawn={image ? '' : undefined}>
      <button
        type="button"
        aria-pressed={one.now}
        onPointerMove={(e) => pointed(e) && onTry()}
        onPointerLeave={(e) => pointed(e) && onLeave()}
        onFocus={(e) => e.currentTarget.matches(':focus-visible') && onTry()}
        // A mouse and the keyboard try by pointing; a finger tries first and takes by a second tap.
        onClick={() => (tried ? onTake() : onTry())}
        style={{ ...cell, outline: `${on ? 2.5 : 1}px solid ${on ? c.accent : c.line}`, background: c.field }}
      >
        <canvas ref={canvas} width={4} height={3} aria-hidden style={{ width: '100%', display: 'block', opacity: image ? 1 : 0 }} />
        <span style={{ ...caption, color: on ? c.accent : c.ink, fontFamily: on ? SANS_MEDIUM : SANS, background: c.chrome }}>
          {tried ? words.common.useNamed(one.name) : one.name}
        </span>
      </button>
      <button
        type="button"
        aria-pressed={marked}
        aria-label={marked ? words.contact.isMarked(one.name) : words.contact.mark(one.name)}
        onClick={onMark}
        style={mark}
      >
        <span style={{ ...dot, background: marked ? c.accent : c.chrome, borderColor: marked ? c.accent : c.quiet, color: c.onAccent }}>
          {marked ? '✓' : ''}
        </span>
      </button>
    </div>
  );
}

/** Pictures of the candidates as they become ready: those near what is in view first. */
function useCells(
  piece: ReturnType<typeof useBench.getState>['piece'],
  coat: string,
  list: Candidate[],
  kind: CellPlace['kind'],
): Map<string, ImageData> {
  const [images, setImages] = useState(new Map<string, ImageData>());
  const nearest = useCallback((left: readonly string[]) => {
    const centre = window.innerHeight / 2;
    const far = (key: string) => {
      const box = document.querySelector(`[data-cell="${CSS.escape(key)}"]`)?.getBoundingClientRect();
      return box ? Math.abs(box.top + box.height / 2 - centre) : Infinity;
    };
    return left.reduce((best, key) => (far(key) < far(best) ? key : best), left[0]);
  }, []);
  useEffect(() => {
    if (!piece) return;
    const stop = new AbortController();
    const v = useViewport.getState();
    const middle: [number, number] = [v.x / v.photo.width, v.y / v.photo.height];
    const { region, scale } = cellRegion(piece, kind === 'whole' ? { kind } : { kind, middle }, 200 * Math.min(2, window.devicePixelRatio || 1));
    void drawCells(piece, coat, list, region, scale, nearest, (key, image) => setImages((now) => new Map(now).set(key, image)), stop.signal).catch(
      complain,
    );
    return () => stop.abort();
  }, [piece, coat, list, kind, nearest]);
  return images;
}

const grid: CSSProperties = { display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(84px, 1fr))', gap: 6 };
const cell: CSSProperties = {
  display: 'block',
  width: '100%',
  padding: 0,
  border: 'none',
  borderRadius: 2,
  cursor: 'pointer',
  overflow: 'hidden',
  minHeight: 76,
};
const caption: CSSProperties = {
  display: 'block',
  fontSize: 13,
  lineHeight: '16px',
  padding: '3px 4px',
  overflow: 'hidden',
  textOverflow: 'ellipsis',
  whiteSpace: 'nowrap',
  textAlign: 'left',
};
const mark: CSSProperties = {
  position: 'absolute',
  top: 0,
  right: 0,
  width: 44,
  height: 44,
  border: 'none',
  background: 'none',
  cursor: 'pointer',
  padding: 10,
};
const dot: CSSProperties = {
  display: 'block',
  width: 22,
  height: 22,
  border: '1.5px solid',
  borderRadius: 2,
  fontSize: 15,
  lineHeight: '19px',
  textAlign: 'center',
};

import { useEffect, useRef, useState, type CSSProperties } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import * as z from 'zod';
import { lookFamilies } from '@/core/looks/families';
import { share } from '@/core/schema';
import { findCoat } from '@/core/piece/groups';
import { useBench } from '@/store/bench';
import { panelEdit } from '@/store/editing';
import { needsOf } from '@/core/looks/needs';
import { coatName } from '@/core/piece/naming';
import { lookEdit, takeLook, useLookPlace, useLooks, type Look } from '@/store/looks';
import { showLook } from '@/store/lookPictures';
import { useOwn } from '@/store/own';
import { complain } from '@/store/notices';
import { useTrying } from '@/store/trying';
import { Act } from '../../kit/Act';
import { Choice } from '../../kit/Choice';
import { Panel } from '../../kit/Panel';
import { pictureSheet } from '../../kit/pictureSheet';
import { SANS, SANS_MEDIUM, useColours } from '../../theme';
import { OwnLooks } from './OwnLooks';
import { StartsFacet } from './StartsFacet';
import { words } from '../../words';

type Filter = 'all' | 'own' | (typeof lookFamilies)[number]['id'];

const strengthSchema = z.object({ strength: share(words.looks.allCoats, 1, { help: words.looks.strengthOfAllCoatsTogether }) });

/** Looks on one's own photo: a tap tries one, each in place of the last; “Use it”, or a second tap, keeps it. Below, looks of one's own and readyings. */
export function LooksFacet() {
  const c = useColours();
  const { shipped, own, refresh } = useLooks();
  const [filter, setFilter] = useState<Filter>('all');
  const tried = useTrying((s) => s.look);
  const strength = useBench((s) => s.piece?.strength ?? 1);
  const coats = useBench((s) => s.piece?.coats.length ?? 0);
  useEffect(() => void refresh().catch(complain), [refresh]);
  // What was only tried goes with the page.
  useEffect(
    () => () => {
      if (useTrying.getState().look) useBench.getState().preview(null);
      useTrying.setState({ look: null });
    },
    [],
  );
  const attempt = async (look: Look) => {
    if (useTrying.getState().look?.id === look.id) return keepLook();
    const { piece, preview } = useBench.getState();
    if (!piece) return;
    useTrying.setState({ look });
    const { edit } = await lookEdit(look, piece);
    if (useTrying.getState().look === look) preview(edit);
  };
  const all = [...own, ...(shipped ?? [])];
  const list = all.filter((look) => filter === 'all' || (filter === 'own' ? look.family === null : look.family === filter));
  return (
    <View style={{ gap: 8 }}>
      <Choice
        bare
        scrolls
        label={words.looks.kindOfLook}
        options={[
          { value: 'all' as Filter, label: words.common.all },
          ...(own.length > 0 ? [{ value: 'own' as Filter, label: words.looks.yours }] : []),
          ...lookFamilies.map(({ id, label }) => ({ value: id as Filter, label })),
        ]}
        value={filter}
        onChange={(kind) => setFilter(kind as Filter)}
      />
      {coats > 0 ? <Place /> : null}
      {tried ? <Needs look={tried} /> : null}
      <div role="group" aria-label={words.looks.looks} style={grid}>
        {list.map((look) => (
          <LookCard key={look.id} look={look} on={tried?.id === look.id} onPress={() => void attempt(look).catch(complain)} />
        ))}
      </div>
      {shipped === null ? <Text style={{ color: c.quiet }}>{words.looks.loading}</Text> : null}
      {coats > 0 ? (
        <Panel
          schema={strengthSchema}
          values={{ strength }}
          {...panelEdit(
            (_key, v) => (piece) => ({ ...piece, strength: v as number }),
            () => words.common.strengthOfAllCoats,
            'piece',
          )}
        />
      ) : null}
      <OwnLooks />
      <StartsFacet />
    </View>
  );
}

/** Where a look's coats go on a piece that has some. */
function Place() {
  const { place, above } = useLookPlace();
  const coat = useBench((s) => s.piece && findCoat(s.piece, above));
  const names = useOwn((s) => s.names);
  return (
    <Choice
      label={words.looks.place}
      value={place === 'above' && !coat ? 'top' : place}
      options={[
        { value: 'top' as const, label: words.looks.onTop },
        ...(coat ? [{ value: 'above' as const, label: words.looks.above(coatName(coat, names)) }] : []),
        { value: 'instead' as const, label: words.looks.instead },
      ]}
      onChange={(to) => {
        useLookPlace.setState({ place: to });
        const { look } = useTrying.getState();
        const { piece, preview } = useBench.getState();
        if (look && piece) void lookEdit(look, piece).then(({ edit }) => preview(edit), complain);
      }}
    />
  );
}

/** What a look uses that the shelf or the photo may lack. */
function Needs({ look }: { look: Look }) {
  const c = useColours();
  const list = useOwn((s) => s.list);
  const { pictures, people } = needsOf(look.recipe);
  const missing = pictures.filter((file) => !list.some(({ key, name }) => key === file || name === file));
  const said = [...missing.map(words.looks.lacksPicture), ...(people ? [words.looks.usesPeople] : [])];
  return said.length > 0 ? <Text style={{ color: missing.length > 0 ? c.accent : c.quiet }}>{said.join(' ')}</Text> : null;
}

function keepLook(): void {
  const { look } = useTrying.getState();
  if (!look) return;
  useTrying.setState({ look: null });
  void takeLook(look).then((top) => {
    const { choose, openFacet } = useBench.getState();
    // Then the rail shows the coats that it has brought; the photo's own tabs would show the photo without them.
    if (top) choose(top);
    openFacet(null);
  }, complain);
}

/** Keeps the look that is tried. It stands beside the title, where it is seen however far the page is pushed. */
export function UseLook() {
  const c = useColours();
  const tried = useTrying((s) => s.look);
  return (
    <Act plain disabled={!tried} textColor={c.accent} onPress={keepLook}>
      {words.common.useIt}
    </Act>
  );
}

/** A look on the photo; it is drawn once its card comes into view. */
function LookCard({ look, on, onPress }: { look: Look; on: boolean; onPress(): void }) {
  const c = useColours();
  const place = useRef<HTMLButtonElement>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const piece = useBench((s) => s.piece);
  const [drawn, setDrawn] = useState<'coarse' | 'fine'>();
  useEffect(() => {
    const element = place.current;
    if (!element || !piece) return;
    const stop = new AbortController();
    let begun = false;
    const watch = new IntersectionObserver((seen) => {
      if (begun || !seen.some((s) => s.isIntersecting)) return;
      begun = true;
      showLook(look, piece, stop.signal, (image, isFine) => {
        if (!canvas.current) return;
        canvas.current.width = image.width;
        canvas.current.height = image.height;
        canvas.current.getContext('2d')?.drawImage(image, 0, 0);
        setDrawn(isFine ? 'fine' : 'coarse');
      });
    });
    watch.observe(element);
    return () => {
      watch.disconnect();
      stop.abort();
    };
  }, [look, piece]);
  return (
    <button ref={place} type="button" aria-pressed={on} onClick={onPress} data-drawn={drawn} style={card}>
      <span style={{ ...frame, background: c.card, outline: `${on ? 3 : 1}px solid ${on ? c.accent : c.line}` }}>
        <canvas ref={canvas} width={1} height={1} aria-hidden style={{ ...fitted, opacity: drawn ? 1 : 0 }} />
      </span>
      <span style={{ ...caption, color: c.ink, fontFamily: on ? SANS_MEDIUM : SANS }}>{look.recipe.name}</span>
    </button>
  );
}

const { grid, card, frame, caption } = pictureSheet;
const fitted: CSSProperties = { width: '100%', height: '100%', objectFit: 'cover', objectPosition: '50% 30%', display: 'block' };

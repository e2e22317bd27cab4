import { useEffect, useState, type CSSProperties } from 'react';
import { Dialog } from 'react-native-paper';
import { resultOf, useBatch } from '@/store/batch';
import { complain } from '@/store/notices';
import { Act } from '../kit/Act';
import { PopUp } from '../kit/PopUp';
import { pictureSheet } from '../kit/pictureSheet';
import { SANS, useColours } from '../theme';
import { words } from '../words';

/** The results as a contact sheet; one is looked at larger by a tap. */
export function Results() {
  const c = useColours();
  const { job, pictures } = useBatch();
  const [open, setOpen] = useState<number | null>(null);
  if (!job) return null;
  return (
    <>
      <div role="group" aria-label={words.batch.results} style={grid}>
        {job.items.map((item, i) =>
          item.state === 'done' ? (
            <button key={i} type="button" aria-label={words.batch.lookAtIt(item.result)} onClick={() => setOpen(i)} style={card}>
              <span style={{ ...frame, background: c.card }}>{pictures[i] ? <img src={pictures[i]} alt="" style={fitted} /> : null}</span>
              <span style={{ ...caption, color: c.ink, fontFamily: SANS }}>{item.result}</span>
            </button>
          ) : null,
        )}
      </div>
      <Larger key={open} index={open} name={open === null ? '' : job.items[open].result} onClose={() => setOpen(null)} />
    </>
  );
}

function Larger({ index, name, onClose }: { index: number | null; name: string; onClose(): void }) {
  const small = useBatch((s) => (index === null ? undefined : s.pictures[index]));
  const [url, setUrl] = useState<string | null>(null);
  useEffect(() => {
    if (index === null) return;
    let made: string | null = null;
    let live = true;
    void resultOf(index).then((file) => {
      // No browser shows a TIFF.
      if (!live || !file || useBatch.getState().job?.as.type === 'image/tiff') return;
      made = URL.createObjectURL(file);
      setUrl(made);
    }, complain);
    return () => {
      live = false;
      if (made) URL.revokeObjectURL(made);
    };
  }, [index]);
  const shown = url ?? small;
  return (
    <PopUp label={words.batch.result(name)} visible={index !== null} onClose={onClose}>
      <Dialog.Content>
        {shown ? <img src={shown} alt={name} style={{ width: '100%', maxHeight: '70vh', objectFit: 'contain' }} /> : null}
      </Dialog.Content>
      <Dialog.Actions>
        <Act main onPress={onClose}>
          {words.common.close}
        </Act>
      </Dialog.Actions>
    </PopUp>
  );
}

const { grid, card, frame, caption } = pictureSheet;
const fitted: CSSProperties = { width: '100%', height: '100%', objectFit: 'contain', display: 'block' };

import { useEffect, useState } from 'react';
import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import type { Coat } from '@/core/piece/schema';
import type { SignatureLines } from '@/core/sources/signature';
import { useBench } from '@/store/bench';
import { complain } from '@/store/notices';
import { useSignatures } from '@/store/signatures';
import { Act } from '../../kit/Act';
import { Acts } from '../../kit/Acts';
import { Fold } from '../../kit/Fold';
import { SignatureDrawing, SignaturePad } from '../../kit/SignaturePad';
import { useColours } from '../../theme';
import { words } from '../../words';
import { SourcePanel } from './SourcePanel';

/** A signature: drawn once and kept, or one of those that were kept; then where and how it stands. */
export function SignaturePanel({ coat }: { coat: Coat }) {
  const c = useColours();
  const { list, refresh, keep, forget } = useSignatures();
  const { change } = useBench.getState();
  const [drawn, setDrawn] = useState<SignatureLines>([]);
  const source = coat.source as unknown as SourceInput & { lines: SignatureLines };
  useEffect(() => void refresh().catch(complain), [refresh]);
  const use = (lines: SignatureLines) => {
    void keep(lines).catch(complain);
    change(words.signature.use, exchangeSource(coat.id, { ...source, lines } as unknown as SourceInput));
    setDrawn([]);
  };
  const empty = source.lines.length === 0;
  return (
    <View style={{ gap: 8 }}>
      {empty ? null : <SourcePanel coat={coat} />}
      <Fold title={empty ? words.signature.draw : words.signature.change} begin={empty}>
        <Text style={{ color: c.quiet, fontSize: 13 }}>{words.signature.help}</Text>
        <SignaturePad lines={drawn} onChange={setDrawn} />
        {drawn.length > 0 ? (
          <Acts>
            <Act main onPress={() => use(drawn)}>
              {words.signature.use}
            </Act>
            <Act plain onPress={() => setDrawn([])}>
              {words.signature.clear}
            </Act>
          </Acts>
        ) : null}
        {list.length > 0 ? (
          <div role="list" aria-label={words.signature.kept}>
            {list.map((lines, i) => (
              <div role="listitem" key={i} style={{ display: 'flex', alignItems: 'center', gap: 8 }}>
                <SignatureDrawing lines={lines} width={120} height={44} />
                <Act onPress={() => use(lines)}>{words.signature.useKept(i + 1)}</Act>
                <Act plain onPress={() => void forget(lines).catch(complain)}>
                  {words.signature.forget}
                </Act>
              </div>
            ))}
          </div>
        ) : null}
      </Fold>
    </View>
  );
}

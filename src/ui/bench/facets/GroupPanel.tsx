import { View } from 'react-native';
import { Text } from 'react-native-paper';
import { modeById } from '@/core/blend';
import { exchangeSource, type SourceInput } from '@/core/piece/edits';
import { innerCoats } from '@/core/piece/groups';
import { coatName } from '@/core/piece/naming';
import type { Coat } from '@/core/piece/schema';
import { ungroup } from '@/core/piece/stacking';
import { sourceByKind } from '@/core/sources';
import { useBench } from '@/store/bench';
import { panelEdit, stepOf } from '@/store/editing';
import { useOwn } from '@/store/own';
import { Act } from '../../kit/Act';
import { Panel } from '../../kit/Panel';
import { useColours } from '../../theme';
import { words } from '../../words';

/** The coats of a group, uppermost first, and how they blend. */
export function GroupPanel({ coat }: { coat: Coat }) {
  const c = useColours();
  const names = useOwn((s) => s.names);
  const { choose, change } = useBench.getState();
  const source = coat.source as unknown as SourceInput;
  const { schema } = sourceByKind('group');
  const coats = [...innerCoats(coat)].reverse();
  const set = (key: string, value: unknown) => exchangeSource(coat.id, { ...source, [key]: value });
  return (
    <View style={{ gap: 8 }}>
      <Text style={{ color: c.quiet }}>{coats.length === 0 ? words.groups.isEmpty : words.groups.says}</Text>
      {coats.map((one) => (
        <Act key={one.id} onPress={() => choose(one.id)} contentStyle={{ justifyContent: 'flex-start' }}>
          {`${coatName(one, names)} · ${one.visible ? modeById(one.blend).label.toLowerCase() : words.rail.hidden}`}
        </Act>
      ))}
      {coat.blend === 'normal' ? (
        <Panel schema={schema} values={source} {...panelEdit(set, stepOf(words.groups.group), `${coat.id}.group`)} />
      ) : (
        <Text style={{ color: c.quiet }}>{words.groups.isolatedByMode}</Text>
      )}
      <Act onPress={() => change(words.groups.ungroup, ungroup(coat.id))}>{words.groups.ungroup}</Act>
      <Text style={{ color: c.quiet, fontSize: 13 }}>{words.groups.ungroupHelp}</Text>
    </View>
  );
}

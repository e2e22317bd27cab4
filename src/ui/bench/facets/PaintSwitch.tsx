import { useArming } from '@/store/arming';
import { Toggle } from '../../kit/Toggle';
import { words } from '../../words';

/** Arms painting on the picture: while it is off, a drag pans. */
export function PaintSwitch({ label = words.paintSwitch.paint, help }: { label?: string; help?: string }) {
  const { isArmed, arm } = useArming();
  return <Toggle label={label} value={isArmed} onChange={arm} help={help} />;
}

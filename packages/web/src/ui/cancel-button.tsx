import { Button } from './button';
import { useEscape } from './use-escape';

/** Closes what it stands in, by a press or by Esc. */
export function CancelButton({ onCancel }: { onCancel: () => void }) {
  useEscape(onCancel);
  return <Button onPress={onCancel}>Cancel</Button>;
}

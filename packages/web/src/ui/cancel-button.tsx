import { Button } from './button';
import { useEscape } from './use-escape';

/** Closes its surroundings, by a press or by Esc. */
export function CancelButton({ onCancel }: { onCancel: () => void }) {
  useEscape(onCancel);
  return <Button onPress={onCancel}>Cancel</Button>;
}

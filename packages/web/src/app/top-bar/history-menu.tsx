import { History } from 'lucide-react';
import { Menu, MenuTrigger } from 'react-aria-components';
import { IconButton } from '../../ui/icon-button';
import { MenuEntry, MenuSheet } from '../../ui/menu';
import { useDesk, useDeskStore } from '../../state/desk-store';

/** So many steps are listed. */
const LISTED = 40;

/** Past edits, the latest first: choosing one undoes all down to it. */
export function HistoryMenu() {
  const desk = useDeskStore();
  const past = useDesk((state) => state.past);
  const steps = past
    .slice(-LISTED)
    .map(({ label }, i, all) => ({ id: all.length - i, label }))
    .reverse();
  return (
    <MenuTrigger>
      <IconButton label="Earlier steps" isDisabled={steps.length === 0}>
        <History aria-hidden />
      </IconButton>
      <MenuSheet>
        <Menu
          items={steps}
          onAction={(key) => {
            for (let n = 0; n < Number(key); n++) desk.getState().undo();
          }}
        >
          {({ id, label }) => <MenuEntry id={id}>{label}</MenuEntry>}
        </Menu>
      </MenuSheet>
    </MenuTrigger>
  );
}

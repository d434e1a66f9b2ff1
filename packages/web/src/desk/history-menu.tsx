import { History } from 'lucide-react';
import { Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { IconButton } from '../ui/icon-button';
import { useDesk, useDeskStore } from './desk-store';

/** So many steps are listed. */
const LISTED = 40;

const Sheet = styled(Popover)`
  max-height: 360px;
  overflow: auto;
  min-width: 200px;
  padding: 4px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
`;

const Step = styled(MenuItem)`
  padding: 4px 8px;
  border-radius: 4px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.wash};
  }
`;

/** What was done, the last first: chosen, all of it down to there is undone. */
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
      <Sheet>
        <Menu
          items={steps}
          onAction={(key) => {
            for (let n = 0; n < Number(key); n++) desk.getState().undo();
          }}
        >
          {({ id, label }) => <Step id={id}>{label}</Step>}
        </Menu>
      </Sheet>
    </MenuTrigger>
  );
}

import { Bookmark } from 'lucide-react';
import { useState } from 'react';
import { Header, Menu, MenuItem, MenuSection, MenuTrigger, Popover } from 'react-aria-components';
import styled from 'styled-components';
import { keepView, dropView } from '../../edits/view-edits';
import { IconButton } from '../../ui/icon-button';
import { NameDialog } from '../../ui/name-dialog';
import { useDesk, useLiveDeskStore, useSelectedRider } from '../desk-store';
import { FOLLOWING, type Following } from '../state/shown';

const Sheet = styled(Popover)`
  max-height: 360px;
  overflow: auto;
  min-width: 210px;
  padding: 4px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
`;

const Title = styled(Header)`
  padding: 6px 8px 2px;
  color: ${({ theme }) => theme.quiet};
  font-size: 11px;
`;

const Item = styled(MenuItem)`
  padding: 4px 8px;
  border-radius: 4px;
  cursor: pointer;
  &[data-focused] {
    background: ${({ theme }) => theme.wash};
  }
`;

const FROM: Record<Following, string> = { behind: 'from behind', beside: 'from beside', above: 'from above' };

/** Views of the stage that are kept by name with the shot, and the view that follows a rider. */
export function KeptViews() {
  const desk = useLiveDeskStore();
  const views = useDesk(({ shot }) => shot.views);
  const follow = useDesk((state) => state.follow);
  const rider = useSelectedRider();
  const [naming, setNaming] = useState(false);
  const act = (key: string) => {
    const { edit, set } = desk.getState();
    const [what, id] = key.split(/ (.*)/);
    const view = views.find((one) => one.id === id);
    if (what === 'keep') setNaming(true);
    if (what === 'go' && view)
      set({ view: 'free', follow: null, lookFrom: { from: view.from, at: view.at } });
    if (what === 'drop' && view) edit(`Delete the view ${view.name}`, dropView(view.id));
    if (what === 'follow') set({ view: 'free', follow: FOLLOWING.find((from) => from === id) ?? null });
  };
  return (
    <>
      <MenuTrigger>
        <IconButton label="Kept views, and following">
          <Bookmark aria-hidden />
        </IconButton>
        <Sheet>
          <Menu onAction={(key) => act(String(key))}>
            <MenuSection>
              <Title>Views</Title>
              {views.map(({ id, name }) => (
                <Item key={id} id={`go ${id}`}>
                  {name}
                </Item>
              ))}
              <Item id="keep it">Keep this view…</Item>
              {views.map(({ id, name }) => (
                <Item key={id} id={`drop ${id}`}>
                  Delete {name}
                </Item>
              ))}
            </MenuSection>
            {rider && (
              <MenuSection>
                <Title>Follow {rider.badge}</Title>
                {FOLLOWING.filter((from) => from !== follow).map((from) => (
                  <Item key={from} id={`follow ${from}`}>
                    Follow {FROM[from]}
                  </Item>
                ))}
                {follow && <Item id="follow nobody">Stand still</Item>}
              </MenuSection>
            )}
          </Menu>
        </Sheet>
      </MenuTrigger>
      {naming && (
        <NameDialog
          title="Keep this view"
          label="Name of the view"
          start={`View ${views.length + 1}`}
          action="Keep it"
          onClose={() => setNaming(false)}
          onName={(name) => {
            const { edit, stands } = desk.getState();
            const place = stands?.();
            if (place) edit(`Keep the view ${name}`, keepView(name, place));
            setNaming(false);
          }}
        />
      )}
    </>
  );
}

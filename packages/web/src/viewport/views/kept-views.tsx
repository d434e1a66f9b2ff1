import { Bookmark } from 'lucide-react';
import { useState } from 'react';
import { Menu, MenuSection, MenuTrigger } from 'react-aria-components';
import { keepView, dropView } from '../../edits/view-edits';
import { IconButton } from '../../ui/icon-button';
import { MenuEntry, MenuSheet, MenuTitle } from '../../ui/menu';
import { NameDialog } from '../../ui/name-dialog';
import { useDesk, useLiveDeskStore, useSelectedRider } from '../../state/desk-store';
import { FOLLOWING, type Following } from '../../state/shown';

const FROM: Record<Following, string> = { behind: 'from behind', beside: 'from beside', above: 'from above' };

/** Views of the stage that are kept by name with the shot, and the view that follows a rider. */
export function KeptViews() {
  const desk = useLiveDeskStore();
  const views = useDesk(({ shot }) => shot.views);
  const follow = useDesk((state) => state.follow);
  const rider = useSelectedRider();
  // Until the stage is there the view has no position.
  const stands = useDesk((state) => state.stands);
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
        <IconButton label="Kept views and following">
          <Bookmark aria-hidden />
        </IconButton>
        <MenuSheet>
          <Menu onAction={(key) => act(String(key))}>
            <MenuSection>
              <MenuTitle>Views</MenuTitle>
              {views.map(({ id, name }) => (
                <MenuEntry key={id} id={`go ${id}`}>
                  {name}
                </MenuEntry>
              ))}
              <MenuEntry id="keep it" isDisabled={stands === null}>
                Keep this view…
              </MenuEntry>
              {views.map(({ id, name }) => (
                <MenuEntry key={id} id={`drop ${id}`}>
                  Delete {name}
                </MenuEntry>
              ))}
            </MenuSection>
            {rider && (
              <MenuSection>
                <MenuTitle>Follow {rider.badge}</MenuTitle>
                {FOLLOWING.filter((from) => from !== follow).map((from) => (
                  <MenuEntry key={from} id={`follow ${from}`}>
                    Follow {FROM[from]}
                  </MenuEntry>
                ))}
                {follow && <MenuEntry id="follow nobody">Stop following</MenuEntry>}
              </MenuSection>
            )}
          </Menu>
        </MenuSheet>
      </MenuTrigger>
      {naming && (
        <NameDialog
          title="Keep this view"
          label="Name of the view"
          start={`View ${views.length + 1}`}
          action="Keep"
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

import type { Rider } from '@fleet-rail/core';
import { ChevronRight, GripVertical } from 'lucide-react';
import {
  Button,
  Tree,
  TreeItem,
  TreeItemContent,
  useDragAndDrop,
  type DropItem,
} from 'react-aria-components';
import styled from 'styled-components';
import { Badge } from '../../ui/badge';
import { ridesWhat } from '../../ui/words/rides-what';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { attemptAsked } from '../../commands/attempt';

const List = styled(Tree)`
  display: flex;
  flex-direction: column;
  max-height: 190px;
  overflow: auto;
  scrollbar-width: thin;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  &[data-drop-target] {
    border-color: ${({ theme }) => theme.ink};
  }
` as typeof Tree;

const Line = styled(TreeItem)`
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  cursor: pointer;
  &:last-child {
    border-bottom: 0;
  }
  &[data-hovered],
  &[data-selected] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-selected] {
    box-shadow: inset 3px 0 ${({ theme }) => theme.ink};
  }
  &[data-drop-target] {
    box-shadow: inset 0 0 0 2px ${({ theme }) => theme.ink};
  }
  &[data-focus-visible] {
    outline-offset: -2px;
  }
`;

const Inside = styled.div<{ $level: number }>`
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 30px;
  padding: 0 8px 0 ${({ $level }) => 6 + 18 * ($level - 1)}px;
  & > button {
    display: grid;
    place-items: center;
    width: 20px;
    height: 24px;
    padding: 0;
    border: 0;
    background: transparent;
    color: ${({ theme }) => theme.quiet};
    cursor: grab;
    & svg {
      width: 14px;
      height: 14px;
    }
  }
  & > button[slot='chevron'] {
    cursor: pointer;
  }
  & > span:last-child {
    margin-left: auto;
    color: ${({ theme }) => theme.quiet};
    white-space: nowrap;
  }
  & > b {
    min-width: 0;
    overflow: hidden;
    font-weight: 500;
    text-overflow: ellipsis;
    white-space: nowrap;
  }
`;

const Turning = styled(ChevronRight)<{ $open: boolean }>`
  transform: rotate(${({ $open }) => ($open ? 90 : 0)}deg);
`;

/**
 * All riders, those on a carrier under it. One or several are chosen; dragged onto another a rider sits on it,
 * and keeps its place.
 */
export function RidersTree(props: {
  chosen: ReadonlySet<string>;
  onChoose: (chosen: ReadonlySet<string>) => void;
}) {
  const desk = useDeskStore();
  const riders = useDesk((state) => state.shot.riders);
  const paths = useDesk((state) => state.shot.paths);
  /** Puts what was dropped on a carrier, or off any, as one step. */
  const drop = async (items: readonly DropItem[], carrier: string | null) => {
    const texts = await Promise.all(
      items.map((item) => (item.kind === 'text' ? item.getText('text/plain') : Promise.resolve(''))),
    );
    const ids = texts.filter((id) => riders.some((rider) => rider.id === id));
    const { frame } = desk.getState();
    const label = carrier === null ? 'Detach from its carrier' : 'Attach to a carrier';
    await attemptAsked(desk, label, 'sitOn', ids, carrier, frame, true);
  };
  const { dragAndDropHooks } = useDragAndDrop({
    getItems: (keys) => [...keys].map((key) => ({ 'text/plain': String(key) })),
    getDropOperation: () => 'move',
    onItemDrop: ({ target, items }) => void drop(items, String(target.key)),
    onRootDrop: ({ items }) => void drop(items, null),
  });
  const under = (parent: string | null) => riders.filter((rider) => rider.parent === parent);
  const lineOf = (rider: Rider) => (
    <Line key={rider.id} id={rider.id} textValue={`${rider.badge} ${rider.name}`}>
      <TreeItemContent>
        {({ level, hasChildItems, isExpanded }) => (
          <Inside $level={level}>
            <Button slot="drag">
              <GripVertical aria-hidden />
            </Button>
            {hasChildItems && (
              <Button slot="chevron">
                <Turning $open={isExpanded} aria-hidden />
              </Button>
            )}
            <Badge $color={rider.color} $frozen={rider.frozen !== null}>
              {rider.badge}
            </Badge>
            <b>{rider.name}</b>
            <span>{ridesWhat(rider, paths.find(({ id }) => id === rider.attachment?.path)?.name)}</span>
          </Inside>
        )}
      </TreeItemContent>
      {under(rider.id).map(lineOf)}
    </Line>
  );
  return (
    <List
      aria-label="All riders"
      selectionMode="multiple"
      selectionBehavior="replace"
      disallowEmptySelection
      selectedKeys={props.chosen}
      onSelectionChange={(keys) =>
        props.onChoose(keys === 'all' ? new Set(riders.map(({ id }) => id)) : new Set([...keys].map(String)))
      }
      defaultExpandedKeys={riders.map(({ id }) => id)}
      dragAndDropHooks={dragAndDropHooks}
    >
      {under(null).map(lineOf)}
    </List>
  );
}

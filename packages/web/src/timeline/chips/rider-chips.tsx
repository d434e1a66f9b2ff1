import { Plus } from 'lucide-react';
import { memo } from 'react';
import { Link } from 'react-router';
import { ToggleButton, ToggleButtonGroup } from 'react-aria-components';
import styled from 'styled-components';
import { lineColor } from '../../ui/theme/theme';
import { Badge } from '../../ui/badge';
import { useDesk } from '../../state/desk-store';

const Strip = styled.div`
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 6px 10px;
  overflow-x: auto;
  scrollbar-width: thin;
`;

const Group = styled(ToggleButtonGroup)`
  display: flex;
  gap: 6px;
`;

const Chip = styled(ToggleButton)<{ $color: number }>`
  display: inline-flex;
  align-items: center;
  gap: 6px;
  height: 26px;
  padding: 0 10px 0 4px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 13px;
  background: ${({ theme }) => theme.panel};
  white-space: nowrap;
  cursor: pointer;
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
  &[data-selected] {
    border-color: ${({ $color }) => lineColor($color)};
    box-shadow: inset 0 0 0 1px ${({ $color }) => lineColor($color)};
    font-weight: 600;
  }
`;

const Add = styled(Link)`
  display: inline-flex;
  align-items: center;
  justify-content: center;
  gap: 6px;
  min-width: 26px;
  height: 26px;
  padding: 0 5px;
  border: 1px dashed ${({ theme }) => theme.quiet};
  border-radius: 13px;
  color: ${({ theme }) => theme.ink};
  text-decoration: none;
  flex: none;
  & svg {
    width: 14px;
    height: 14px;
  }
`;

/** Memoised: of hundreds only changed ones re-render. */
const RiderChip = memo(function RiderChip(props: {
  id: string;
  color: number;
  badge: string;
  name: string;
  frozen: boolean;
}) {
  return (
    <Chip id={props.id} $color={props.color}>
      <Badge $color={props.color} $frozen={props.frozen}>
        {props.badge}
      </Badge>
      {props.name}
    </Chip>
  );
});

/** Everything that rides, as badges of a route map; one of them is selected. */
export function RiderChips({ shotId }: { shotId: string }) {
  const riders = useDesk((state) => state.shot.riders);
  const riderId = useDesk((state) => state.riderId);
  const set = useDesk((state) => state.set);
  return (
    <Strip>
      <Group
        aria-label="Riders"
        selectionMode="single"
        disallowEmptySelection
        selectedKeys={riderId === null ? [] : [riderId]}
        onSelectionChange={(keys) => {
          const id = [...keys][0] as string;
          const pathId = riders.find((rider) => rider.id === id)?.attachment?.path;
          set(pathId === undefined ? { riderId: id } : { riderId: id, pathId, points: new Set() });
        }}
      >
        {riders.map(({ id, color, badge, name, frozen }) => (
          <RiderChip key={id} id={id} color={color} badge={badge} name={name} frozen={frozen !== null} />
        ))}
      </Group>
      <Add to={`/shots/${shotId}/attach?add`} aria-label="Add a rider" title="Add a rider">
        <Plus aria-hidden /> {riders.length === 0 && 'Add a rider'}
      </Add>
    </Strip>
  );
}

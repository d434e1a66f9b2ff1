import { Copy, MoreHorizontal, Pencil, Trash2 } from 'lucide-react';
import { Button, Menu, MenuItem, MenuTrigger, Popover } from 'react-aria-components';
import { Link } from 'react-router';
import styled from 'styled-components';
import type { ShotCard } from '../../api/shots';
import { Badge } from '../../ui/badge';
import { PathSketch } from './path-sketch';

const Tile = styled.article`
  position: relative;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  overflow: hidden;
  background: ${({ theme }) => theme.panel};
  &:hover {
    border-color: ${({ theme }) => theme.quiet};
  }
  &:focus-within {
    border-color: ${({ theme }) => theme.ink};
  }
`;

const Open = styled(Link)`
  display: block;
  color: inherit;
  text-decoration: none;
`;

const Foot = styled.div`
  padding: 10px 44px 12px 12px;
`;

const Name = styled.h2`
  font-size: 15px;
  font-weight: 600;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
`;

const Figures = styled.div`
  display: flex;
  align-items: center;
  gap: 4px;
  margin-top: 4px;
  min-height: 18px;
  color: ${({ theme }) => theme.quiet};
`;

const More = styled(Button)`
  position: absolute;
  right: 8px;
  bottom: 52px;
  width: 28px;
  height: 28px;
  padding: 0;
  border: 0;
  border-radius: 6px;
  background: transparent;
  cursor: pointer;
  & svg {
    width: 16px;
    height: 16px;
    vertical-align: middle;
  }
  &[data-hovered] {
    background: ${({ theme }) => theme.wash};
  }
`;

const Sheet = styled(Popover)`
  & [role='menu']:focus-visible {
    outline: none;
  }
  padding: 4px;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
`;

const Item = styled(MenuItem)`
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 6px 12px 6px 8px;
  border-radius: 4px;
  cursor: pointer;
  & svg {
    width: 15px;
    height: 15px;
    stroke-width: 1.75;
  }
  &[data-focused] {
    background: ${({ theme }) => theme.wash};
  }
`;

/** A shot on the shots page: what its paths look like, what it is called, what can be done to it. */
export function ShotTile(props: {
  shot: ShotCard;
  onRename: () => void;
  onDuplicate: () => void;
  onDelete: () => void;
}) {
  const { id, name, sketch } = props.shot;
  const seconds = (sketch.frames / sketch.fps).toFixed(1);
  const run = { rename: props.onRename, duplicate: props.onDuplicate, delete: props.onDelete };
  return (
    <Tile aria-label={name}>
      <Open to={`/shots/${id}/path`} aria-label={`Open ${name}`}>
        <PathSketch sketch={sketch} />
        <Foot>
          <Name>{name}</Name>
          <Figures>
            {sketch.frames} frames · {seconds} s
          </Figures>
          <Figures>
            {sketch.riders.slice(0, 5).map(({ badge, color }, i) => (
              <Badge key={i} $color={color}>
                {badge}
              </Badge>
            ))}
          </Figures>
        </Foot>
      </Open>
      <MenuTrigger>
        <More aria-label={`More for ${name}`}>
          <MoreHorizontal aria-hidden />
        </More>
        <Sheet>
          <Menu onAction={(key) => run[key as keyof typeof run]()}>
            <Item id="rename" textValue="Rename">
              <Pencil aria-hidden /> Rename
            </Item>
            <Item id="duplicate" textValue="Duplicate">
              <Copy aria-hidden /> Duplicate
            </Item>
            <Item id="delete" textValue="Delete">
              <Trash2 aria-hidden /> Delete
            </Item>
          </Menu>
        </Sheet>
      </MenuTrigger>
    </Tile>
  );
}

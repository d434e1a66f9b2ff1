import { Gauge } from 'lucide-react';
import { Menu, MenuSection, MenuTrigger, Text } from 'react-aria-components';
import styled from 'styled-components';
import { IconButton } from '../../ui/icon-button';
import { MenuEntry, MenuSheet, MenuTitle } from '../../ui/menu';
import { STAGE_QUALITIES, useStageQuality, type StageQuality } from '../drawing/stage-quality';

const Entry = styled(MenuEntry)`
  & > [slot='label'] {
    display: block;
  }
  & > [slot='description'] {
    color: ${({ theme }) => theme.quiet};
    font-size: 11px;
  }
  &[data-selected] > [slot='label'] {
    font-weight: 600;
  }
`;

const NAMES: Record<StageQuality, readonly [name: string, meaning: string]> = {
  full: ['Full', 'Shadows, outline, all pixels'],
  light: ['Light', 'Fewer pixels, no shadows'],
  still: ['Still', 'Drawn only when asked'],
};

/** Choice of what the stage's pictures may cost. */
export function QualityMenu() {
  const { quality, choose } = useStageQuality();
  return (
    <MenuTrigger>
      <IconButton label={`Stage quality: ${NAMES[quality][0].toLowerCase()}`}>
        <Gauge aria-hidden />
      </IconButton>
      <MenuSheet>
        <Menu
          selectionMode="single"
          disallowEmptySelection
          selectedKeys={[quality]}
          onSelectionChange={(keys) => {
            const chosen = STAGE_QUALITIES.find((one) => keys !== 'all' && keys.has(one));
            if (chosen) choose(chosen);
          }}
        >
          <MenuSection>
            <MenuTitle>Stage quality in this browser</MenuTitle>
            {STAGE_QUALITIES.map((one) => (
              <Entry key={one} id={one} textValue={NAMES[one][0]}>
                <Text slot="label">{NAMES[one][0]}</Text>
                <Text slot="description">{NAMES[one][1]}</Text>
              </Entry>
            ))}
          </MenuSection>
        </Menu>
      </MenuSheet>
    </MenuTrigger>
  );
}

import { ChevronRight } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button, Disclosure, DisclosurePanel, Heading } from 'react-aria-components';
import styled from 'styled-components';
import { LABEL_FONT } from './theme/fonts';

const Box = styled(Disclosure)`
  border-bottom: 1px solid ${({ theme }) => theme.hairline};
  & > h3 > button {
    display: flex;
    align-items: center;
    gap: 6px;
    width: 100%;
    padding: 10px 16px;
    border: 0;
    background: transparent;
    color: ${({ theme }) => theme.quiet};
    font: 600 13px/1.3 ${LABEL_FONT};
    letter-spacing: 0.03em;
    text-align: left;
    cursor: pointer;
    & svg {
      width: 14px;
      height: 14px;
    }
    &[data-focus-visible] {
      outline-offset: -2px;
    }
  }
  /* Within a section the sides are that section's. */
  section & {
    border-bottom: 0;
  }
  section & > h3 > button {
    padding: 6px 0;
  }
  &[data-expanded] > h3 > button svg {
    transform: rotate(90deg);
  }
`;

const Inside = styled.div`
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 0 16px 12px;
  section & {
    padding: 0 0 8px;
  }
`;

/** A part of a step's panel that is opened when it is wanted. */
export function Fold(props: {
  title: string;
  children: ReactNode;
  isOpen?: boolean;
  onOpen?: (open: boolean) => void;
}) {
  return (
    <Box defaultExpanded={props.isOpen} onExpandedChange={props.onOpen}>
      <Heading level={3}>
        <Button slot="trigger">
          <ChevronRight aria-hidden /> {props.title}
        </Button>
      </Heading>
      <DisclosurePanel>
        <Inside>{props.children}</Inside>
      </DisclosurePanel>
    </Box>
  );
}

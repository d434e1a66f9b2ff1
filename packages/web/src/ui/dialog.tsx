import type { ReactNode } from 'react';
import { Dialog as AriaDialog, Heading, Modal, ModalOverlay } from 'react-aria-components';
import styled from 'styled-components';

const Shade = styled(ModalOverlay)`
  position: fixed;
  inset: 0;
  z-index: 100;
  display: grid;
  place-items: center;
  background: rgb(12 18 22 / 45%);
`;

const Card = styled(Modal)`
  width: 400px;
  max-width: calc(100vw - 32px);
  max-height: calc(100vh - 64px);
  overflow: auto;
  border: 1px solid ${({ theme }) => theme.hairline};
  border-radius: 6px;
  background: ${({ theme }) => theme.panel};
  color: ${({ theme }) => theme.ink};
`;

const Body = styled(AriaDialog)`
  display: flex;
  flex-direction: column;
  gap: 12px;
  padding: 20px;
`;

const Title = styled(Heading)`
  font-size: 17px;
  font-weight: 600;
`;

export const DialogButtons = styled.div`
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  flex-wrap: wrap;
`;

/** A question that must be answered before anything else. */
export function Dialog(props: { title: string; isOpen: boolean; onClose: () => void; children: ReactNode }) {
  return (
    <Shade isOpen={props.isOpen} onOpenChange={(open) => !open && props.onClose()} isDismissable>
      <Card>
        <Body>
          <Title slot="title">{props.title}</Title>
          {props.children}
        </Body>
      </Card>
    </Shade>
  );
}

import { Component, type ReactNode } from 'react';
import styled from 'styled-components';
import { Button } from './button';

const Message = styled.div`
  display: grid;
  align-content: center;
  justify-items: center;
  gap: 12px;
  height: 100%;
  padding: 24px;
  text-align: center;
`;

/** Catches what goes wrong inside while drawing, so that the rest stays usable. */
export class CrashGuard extends Component<{ what: string; children: ReactNode }, { error: Error | null }> {
  override state: { error: Error | null } = { error: null };

  static getDerivedStateFromError(error: unknown) {
    return { error: error instanceof Error ? error : new Error(String(error)) };
  }

  override render() {
    const { error } = this.state;
    if (error === null) return this.props.children;
    return (
      <Message role="alert">
        <p>
          {this.props.what} stopped: {error.message}
          <br />
          What you did is kept in this browser and on the server.
        </p>
        <Button onPress={() => this.setState({ error: null })}>Try again</Button>
      </Message>
    );
  }
}

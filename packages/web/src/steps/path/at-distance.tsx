import type { ShotPath } from '@fleet-rail/core';
import { useState } from 'react';
import { Button } from '../../ui/button';
import { Buttons, Hint, Section, SectionTitle } from '../../ui/panel';
import { QuantityField } from '../../ui/quantity-field';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { insertAt, markAt } from '../../commands/at-place';
import { cancelTool } from '../../commands/drawing';

/** While a place on the path is to be clicked: the same by number, for those who do not point. */
export function AtDistance({ path, kind }: { path: ShotPath; kind: 'insert' | 'mark' }) {
  const desk = useDeskStore();
  const [at, setAt] = useState(0);
  const length = useDesk((state) => state.evaluation?.paths.get(path.id)?.length ?? 0);
  const put = () => {
    cancelTool(desk);
    (kind === 'insert' ? insertAt : markAt)(desk, path, Math.min(length, at));
  };
  return (
    <Section>
      <SectionTitle>{kind === 'insert' ? 'Insert a point' : 'Add a mark'}</SectionTitle>
      <Hint>Click the path, or say how far along it.</Hint>
      <QuantityField
        label="Along the path"
        kind="length"
        value={at}
        min={0}
        max={length || 1e6}
        step={0.5}
        onChange={setAt}
      />
      <Buttons>
        <Button isDisabled={length === 0} onPress={put}>
          {kind === 'insert' ? 'Insert there' : 'Mark there'}
        </Button>
        <Button onPress={() => cancelTool(desk)}>Cancel</Button>
      </Buttons>
    </Section>
  );
}

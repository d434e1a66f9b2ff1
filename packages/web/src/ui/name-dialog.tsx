import { useState, type FormEvent } from 'react';
import { Button, PrimaryButton } from './button';
import { Dialog, DialogButtons } from './dialog';
import { TextField } from './fields';

/** Asks for a name. */
export function NameDialog(props: {
  title: string;
  label: string;
  start: string;
  action: string;
  onName: (name: string) => void;
  onClose: () => void;
}) {
  const [name, setName] = useState(props.start);
  const submit = (event: FormEvent) => {
    event.preventDefault();
    const clean = name.trim();
    if (clean !== '') props.onName(clean);
  };
  return (
    <Dialog title={props.title} isOpen onClose={props.onClose}>
      <form onSubmit={submit} style={{ display: 'contents' }}>
        <TextField label={props.label} value={name} onChange={setName} maxLength={200} autoFocus isRequired />
        <DialogButtons>
          <Button onPress={props.onClose}>Cancel</Button>
          <PrimaryButton type="submit" isDisabled={name.trim() === ''}>
            {props.action}
          </PrimaryButton>
        </DialogButtons>
      </form>
    </Dialog>
  );
}

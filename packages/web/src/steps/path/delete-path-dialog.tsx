import type { ShotPath } from '@fleet-rail/core';
import type { RidersFate } from '../../edits/path-edits';
import { Button, PrimaryButton } from '../../ui/button';
import { Dialog, DialogButtons } from '../../ui/dialog';
import { notify } from '../../ui/notices';
import { useDesk, useDeskStore, type DeskStore } from '../../state/desk-store';
import { attemptAsked } from '../../commands/attempt';

/** Takes a path away as one step, and offers the way back. */
export async function removePath(desk: DeskStore, path: ShotPath, fate: RidersFate): Promise<void> {
  if (!(await attemptAsked(desk, 'Delete path', 'deletePath', path.id, fate, desk.getState().frame))) return;
  notify('done', `Deleted "${path.name}".`, { name: 'Undo', run: () => desk.getState().undo() });
}

/** Asks what becomes of the riders of a path that is to be taken away. */
export function DeletePathDialog({ path, onClose }: { path: ShotPath; onClose: () => void }) {
  const desk = useDeskStore();
  const riders = useDesk((state) => state.shot.riders);
  const frame = useDesk((state) => state.frame);
  const carried = riders.filter((rider) => rider.attachment?.path === path.id).map((rider) => rider.badge);
  const remove = (fate: RidersFate) => {
    void removePath(desk, path, fate);
    onClose();
  };
  return (
    <Dialog title={`Delete "${path.name}"?`} isOpen onClose={onClose}>
      <p>
        {carried.join(', ')} {carried.length === 1 ? 'rides' : 'ride'} it. What becomes of{' '}
        {carried.length === 1 ? 'it' : 'them'}?
      </p>
      <DialogButtons>
        <Button onPress={onClose}>Cancel</Button>
        <Button onPress={() => remove('back')}>Go back to where they were before</Button>
        <PrimaryButton onPress={() => remove('stay')}>
          Stay where they are at frame {Math.round(frame)}
        </PrimaryButton>
      </DialogButtons>
    </Dialog>
  );
}

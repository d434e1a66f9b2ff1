import type { Attachment } from '../../document/shot-attachment.js';
import type { Rider } from '../../document/shot-rider.js';

/** Leader of a rider's pace, and the relation: coupled behind it, or delayed. */
export type Leading =
  | { readonly by: 'follows'; readonly leader: Rider; readonly attachment: Attachment }
  | { readonly by: 'pacedBy'; readonly leader: Rider; readonly attachment: Attachment };

/** Id of the rider whose pace an attachment uses; null if it has its own. */
export function leaderIdOf({ coupledTo, pacedBy }: Pick<Attachment, 'coupledTo' | 'pacedBy'>): string | null {
  return (coupledTo ?? pacedBy)?.rider ?? null;
}

/** Whether an attachment has its own pace. */
export function hasOwnPace(attachment: Pick<Attachment, 'coupledTo' | 'pacedBy'>): boolean {
  return leaderIdOf(attachment) === null;
}

/**
 * Leader of a rider. A rider with a gap behind one of another path, or with the pace of one that is not attached,
 * goes by its own pace.
 *
 * @param find gives a rider by id
 * @returns null for one that goes by its own pace
 */
export function leadingOf({ attachment }: Rider, find: (id: string) => Rider | undefined): Leading | null {
  if (attachment === null) return null;
  const { coupledTo, pacedBy } = attachment;
  const ahead = coupledTo && find(coupledTo.rider);
  if (ahead?.attachment && ahead.attachment.path === attachment.path)
    return { by: 'follows', leader: ahead, attachment };
  const clock = pacedBy && find(pacedBy.rider);
  return clock?.attachment ? { by: 'pacedBy', leader: clock, attachment } : null;
}

/** Head of a chain of riders that use each other's pace: the rider itself if it has its own. */
export function headOf(rider: Rider, find: (id: string) => Rider | undefined): Rider {
  const passed = new Set<Rider>();
  let head = rider;
  // A document may be asked before circles are refused.
  for (
    let leading = leadingOf(head, find);
    leading && !passed.has(leading.leader);
    leading = leadingOf(head, find)
  ) {
    passed.add(head);
    head = leading.leader;
  }
  return head;
}

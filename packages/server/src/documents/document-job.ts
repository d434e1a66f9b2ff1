import type { ShotColumns } from './checked-shot.js';
import type { PlanText } from '../pool/checked-plan.js';

/** A document thread reads a body as a class of request, or checks a stored document. */
export type DocumentJob = { readonly body: Uint8Array; readonly as: string } | { readonly document: string };

/** A property that was checked and travels as the text it is stored as. */
export type CheckedText = { readonly shot: ShotColumns } | { readonly plan: PlanText };

/** Its answer; a refusal has its own status and body. */
export type DocumentAnswer =
  | {
      readonly body: Readonly<Record<string, unknown>>;
      readonly checked: Readonly<Record<string, CheckedText>>;
    }
  | { readonly columns: ShotColumns }
  | { readonly refused: { readonly status: number; readonly body: object } };

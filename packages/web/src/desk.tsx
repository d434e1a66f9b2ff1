import { memo, Suspense, useEffect, useRef, useState, type RefObject } from 'react';
import { Panel, PanelGroup, PanelResizeHandle, type ImperativePanelHandle } from 'react-resizable-panels';
import { Navigate, useParams } from 'react-router';
import styled from 'styled-components';
import { sentenceOf } from './api/request';
import { takeAhead } from './api/opened-ahead';
import { createShot, openShot, type KeptShot } from './api/shots';
import { notify } from './ui/notices';
import { CrashGuard } from './ui/crash-guard';
import { Hint } from './ui/panel';
import { useDeferredStore } from './state/deferred-store';
import { RiderChips } from './timeline/chips/rider-chips';
import {
  DeskContext,
  LiveDeskContext,
  createDesk,
  useDesk,
  useShownChannel,
  type DeskStore,
} from './state/desk-store';
import { DiagramBar, LineBar } from './timeline/diagram/diagram-bar';
import { RunDiagram } from './timeline/diagram/run-diagram';
import { BankChart } from './steps/facing/bank-chart';
import { DropPlace } from './app/drop/drop-place';
import { DeskRenderer } from './steps/hand-over/desk-renderer';
import { loadPanels, panelOf, Stage } from './app/step-line/panels';
import { StepLine } from './app/step-line/step-line';
import { finishDrawing } from './commands/drawing';
import { Autosave } from './app/saving/autosave';
import { ConflictBanner } from './app/saving/conflict-banner';
import { dropDraft, findDrafts, type Draft } from './app/saving/drafts';
import { keepSteps, stepsBefore } from './app/saving/kept-steps';
import { SaveContext } from './app/saving/save-context';
import { useComeBack } from './app/saving/use-come-back';
import { FORMER_STEP_IDS, STEPS, type StepId } from './state/steps';
import { TopBar } from './app/top-bar/top-bar';
import { Transport } from './timeline/transport/transport';
import { InTurn, Turns } from './ui/staged-mount';
import { useDeskKeys } from './app/shortcuts/use-desk-keys';
import { useChecks } from './app/connections/use-checks';
import { CheckContext } from './state/check-context';
import { useEvaluation } from './app/connections/use-evaluation';
import { useSceneAssets } from './app/connections/use-scene-assets';
import { useModelFacts } from './app/connections/use-model-facts';
import { useOperationPreview } from './app/connections/use-operation-preview';
import { usePlayback } from './timeline/transport/use-playback';

const Whole = styled.div`
  display: flex;
  flex-direction: column;
  height: 100%;
`;

const Below = styled.div`
  display: grid;
  grid-template-columns: 56px 300px minmax(0, 1fr);
  flex: 1;
  min-height: 0;
`;

const StepPanel = styled.aside`
  /* What lies hidden in it for screen readers is scrolled with it, and not with the page. */
  position: relative;
  overflow: auto;
  scrollbar-width: thin;
  border-right: 1px solid ${({ theme }) => theme.hairline};
  background: ${({ theme }) => theme.panel};
`;

const Work = styled.main`
  display: flex;
  flex-direction: column;
  min-height: 0;
  background: ${({ theme }) => theme.panel};
  & > :last-child {
    flex: 1;
    min-height: 0;
  }
`;

const Column = styled.div`
  display: flex;
  flex-direction: column;
  height: 100%;
  & > [data-fills] {
    flex: 1;
    min-height: 0;
  }
`;

const Sash = styled(PanelResizeHandle)`
  height: 5px;
  border-top: 1px solid ${({ theme }) => theme.hairline};
  &[data-resize-handle-state='drag'],
  &[data-resize-handle-state='hover'] {
    background: ${({ theme }) => theme.hairline};
  }
`;

const Message = styled.div`
  display: grid;
  place-items: center;
  height: 100%;
`;

/** Opens a shot at an address, with the edits this browser still holds for it. */
export function DeskPage() {
  const { shotId = '' } = useParams();
  const [opened, setOpened] = useState<{ desk: DeskStore; autosave: Autosave } | { problem: string } | null>(
    null,
  );
  useEffect(() => {
    let closed = false;
    let autosave: Autosave | null = null;
    open(shotId).then(
      (result) => {
        autosave = result.autosave;
        if (closed) autosave.close(false);
        else setOpened(result);
      },
      (error: unknown) => !closed && setOpened({ problem: sentenceOf(error) }),
    );
    return () => {
      closed = true;
      autosave?.close(true);
      setOpened(null);
    };
  }, [shotId]);
  if (opened === null) return <Message role="status">Opening…</Message>;
  if ('problem' in opened) {
    return (
      <Message>
        <Hint role="alert">
          {opened.problem} <a href="/">All shots</a>
        </Hint>
      </Message>
    );
  }
  return (
    <DeskContext.Provider value={opened.desk}>
      <LiveDeskContext.Provider value={opened.desk}>
        <SaveContext.Provider value={opened.autosave}>
          <Desk shotId={shotId} desk={opened.desk} />
        </SaveContext.Provider>
      </LiveDeskContext.Provider>
    </DeskContext.Provider>
  );
}

async function open(shotId: string): Promise<{ desk: DeskStore; autosave: Autosave }> {
  const kept = await (takeAhead(shotId) ?? openShot(shotId));
  const { own, left } = await findDrafts(shotId);
  const desk = createDesk(kept.document);
  // Edits that this tab made before it was reloaded can still be undone.
  desk.setState({ past: await stepsBefore(shotId) });
  const autosave = new Autosave(shotId, desk, { revision: kept.revision, document: kept.document });
  // A draft that a closed tab left on the very save the server has continues it, as this tab's own would.
  const draft = own ?? left.find((other) => continues(other, kept)) ?? null;
  if (draft !== null) {
    if (JSON.stringify(draft.shot) !== JSON.stringify(kept.document))
      restoreDraft(desk, autosave, draft, kept);
    await dropDraft(shotId, draft.tab);
  }
  left.filter((other) => other !== draft).forEach((other) => offerDraft(shotId, other));
  return { desk, autosave };
}

/**
 * Whether a draft was based on the server's present save, or on its own save that the server took without its answer
 * arriving.
 */
function continues(draft: Draft, kept: KeptShot): boolean {
  return draft.revision === kept.revision || (Boolean(draft.save) && draft.save === kept.save);
}

function restoreDraft(desk: DeskStore, autosave: Autosave, draft: Draft, kept: KeptShot): void {
  if (!continues(draft, kept)) {
    autosave.noteConflict('A newer version of this shot was saved in another window.');
  }
  desk.getState().replace('Unsaved edits', draft.shot);
  notify('done', 'Restored edits that the server did not have.');
}

function offerDraft(shotId: string, draft: Draft): void {
  const at = new Date(draft.at).toLocaleString();
  notify('error', `A tab closed at ${at} left unsaved edits.`, {
    name: 'Save them as a new shot',
    run: () => {
      const document = { ...draft.shot, name: `${draft.shot.name.slice(0, 180)} (recovered)` };
      createShot({ document }).then(
        async (shot) => {
          await dropDraft(shotId, draft.tab);
          window.location.assign(`/shots/${shot.id}/path`);
        },
        (error: unknown) => notify('error', sentenceOf(error)),
      );
    },
  });
}

function Desk({ shotId, desk }: { shotId: string; desk: DeskStore }) {
  const { station: step } = useParams();
  useEvaluation(desk);
  const checks = useChecks(desk);
  useSceneAssets(desk);
  useModelFacts();
  useOperationPreview(desk);
  usePlayback(desk);
  useDeskKeys(desk, shotId);
  useComeBack();
  useEffect(() => keepSteps(shotId, desk), [shotId, desk]);
  useEffect(loadPanels, []);
  const work = useRef<HTMLElement>(null);
  const calm = useDeferredStore(desk, work);
  const lower = useRef<ImperativePanelHandle>(null);
  useRoomForTiming(lower, step === 'pace');
  const name = useDesk((state) => state.shot.name);
  const banks = useDesk(({ shot, riderId }) => {
    const attachment = shot.riders.find(({ id }) => id === riderId)?.attachment;
    return attachment !== null && attachment !== undefined && attachment.bank.mode !== 'none';
  });
  /** A channel's line has the room of the bank's chart. */
  const plain = useShownChannel() === null;
  useEffect(() => {
    document.title = `${name} – Fleet Rail`;
    return () => {
      document.title = 'Fleet Rail';
    };
  }, [name]);
  // Nothing that a click or Enter would do is taken along to another step; what was drawn is kept.
  useEffect(() => {
    finishDrawing(desk, false);
    const { tool, operation, set } = desk.getState();
    if (tool.kind !== 'select' || operation !== null) set({ tool: { kind: 'select' }, operation: null });
    set({ seam: false, beside: null });
  }, [desk, step]);
  if (!STEPS.some(({ id }) => id === step))
    return <Navigate to={`/shots/${shotId}/${FORMER_STEP_IDS[step ?? ''] ?? 'path'}`} replace />;
  return (
    <CheckContext.Provider value={checks}>
      <Turns needs={{ panel: panelOf(step).load, stage: Stage.load }}>
        <Whole>
          <TopBar shotId={shotId} />
          <ConflictBanner shotId={shotId} />
          <DeskRenderer shotId={shotId} />
          <DropPlace />
          <Below>
            <StepLine shotId={shotId} />
            <DeskContext.Provider value={calm}>
              <StepPanel aria-label="Step">
                <InTurn of="panel">
                  <StepContent step={step as StepId} shotId={shotId} />
                </InTurn>
              </StepPanel>
            </DeskContext.Provider>
            <Work ref={work}>
              <RiderChips shotId={shotId} />
              <PanelGroup direction="vertical" autoSaveId="fleet-rail.desk">
                <Panel defaultSize={66} minSize={25}>
                  <CrashGuard what="The stage">
                    <Suspense>
                      <InTurn of="stage">
                        <Stage station={step as StepId} />
                      </InTurn>
                    </Suspense>
                  </CrashGuard>
                </Panel>
                <Sash />
                <Panel defaultSize={34} minSize={18} ref={lower}>
                  <Column>
                    <InTurn of="diagram">
                      {step === 'pace' && <DiagramBar />}
                      {step === 'facing' && <LineBar />}
                      <RunDiagram
                        hasStrip={step !== 'facing' || !banks || !plain}
                        hasFeet={step === 'contact' || step === 'pace'}
                      />
                      {step === 'facing' && plain && <BankChart />}
                      <Transport />
                    </InTurn>
                  </Column>
                </Panel>
              </PanelGroup>
            </Work>
          </Below>
        </Whole>
      </Turns>
    </CheckContext.Provider>
  );
}

/** Of the work's height, percent: what the run diagram has where timing is the work. */
const TIMING_ROOM = 52;

/** Gives the run diagram more room at the step that works in it, and takes it back afterwards. */
function useRoomForTiming(panel: RefObject<ImperativePanelHandle | null>, timing: boolean): void {
  useEffect(() => {
    const handle = panel.current;
    if (handle === null || !timing) return;
    const before = handle.getSize();
    if (before >= TIMING_ROOM) return;
    handle.resize(TIMING_ROOM);
    const isThere = () => panel.current !== null;
    return () => {
      // With the desk its panels go too: there is nothing left to take back.
      if (!isThere()) return;
      if (Math.abs(handle.getSize() - TIMING_ROOM) < 1) handle.resize(before);
    };
  }, [panel, timing]);
}

/** Drawn anew by what it shows itself, not with the desk. */
const StepContent = memo(function StepContent(props: { step: StepId; shotId: string }) {
  const Panel = panelOf(props.step);
  return (
    <Suspense>
      <Panel shotId={props.shotId} />
    </Suspense>
  );
});

import type { ShotPath } from '@fleet-rail/core';
import { useParams } from 'react-router';
import styled from 'styled-components';
import { renamePath, reshapePath } from '../../edits/path-edits';
import { LABEL_FONT } from '../../ui/theme/fonts';
import { Button } from '../../ui/button';
import { TextField } from '../../ui/fields';
import { Buttons, Hint, Section } from '../../ui/panel';
import { showNumber } from '../../ui/quantity';
import { QuantityField } from '../../ui/quantity-field';
import { Tick } from '../../ui/tick';
import { useDesk, useDeskStore } from '../../state/desk-store';
import { InTurn } from '../../ui/staged-mount';
import { BASIS_NAMES } from '../../ui/words/basis-names';
import { GiveOutSection } from './export-path-section';
import { DressingSection } from './dressing-section';
import { MarksSection } from './marks-section';
import { startOperation } from '../../commands/operate';
import { OperationMenu } from './operation-menu';
import { PointsSection } from './points-section';
import { ProfileSection } from './profile-section';

const Facts = styled.dl`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 1px 12px;
  margin: 0;
  font: 14px/1.35 ${LABEL_FONT};
  & dt {
    color: ${({ theme }) => theme.quiet};
  }
  & dd {
    margin: 0;
    text-align: right;
  }
`;

const Ticks = styled.div`
  display: flex;
  gap: 16px;
`;

/** The selected path: what it is, its points, what can be done to it, its marks and its heights. */
export function PathDetails({ path }: { path: ShotPath }) {
  const edit = useDesk((state) => state.edit);
  const set = useDesk((state) => state.set);
  const shows = useDesk((state) => state.shows);
  const { shotId } = useParams();
  return (
    <>
      <Section>
        <TextField
          label="Name"
          value={path.name}
          maxLength={200}
          onChange={(name) =>
            name.trim() !== '' && edit('Rename path', renamePath(path.id, name), `rename ${path.id}`)
          }
        />
        <PathFactsList path={path} />
        <BasisSettings path={path} />
        <Ticks>
          <Tick isSelected={shows.polygon} onChange={(polygon) => set({ shows: { ...shows, polygon } })}>
            Handles, polygon
          </Tick>
          <Tick isSelected={shows.comb} onChange={(comb) => set({ shows: { ...shows, comb } })}>
            Curvature
          </Tick>
        </Ticks>
      </Section>
      <InTurn of="points">
        <PointsSection path={path} />
        <OperationMenu id={path.id} closed={path.closed} basis={path.basis} />
        <DressingSection path={path} />
      </InTurn>
      <InTurn of="heights">
        <MarksSection path={path} />
        <ProfileSection path={path} />
        {shotId && <GiveOutSection shotId={shotId} path={path} />}
      </InTurn>
    </>
  );
}

/** Further settings of the basis. */
function BasisSettings({ path }: { path: ShotPath }) {
  const edit = useDesk((state) => state.edit);
  const change = (label: string, part: Partial<ShotPath>, gesture?: string) =>
    edit(
      label,
      reshapePath(path.id, (before) => ({ ...before, ...part })),
      gesture,
    );
  if (path.basis === 'through') {
    return (
      <QuantityField
        label="Alpha (0 uniform, 0.5 centripetal, 1 chordal)"
        kind="count"
        value={path.alpha}
        min={0}
        max={1}
        step={0.05}
        onChange={(alpha, gesture) => change('Spacing of the curve', { alpha }, gesture)}
      />
    );
  }
  // Own knots belong to the degree they were made for.
  if (path.basis !== 'bspline' && !(path.basis === 'nurbs' && path.knots === null)) return null;
  return (
    <QuantityField
      label="Degree"
      kind="count"
      value={path.degree}
      min={1}
      max={5}
      whole
      onChange={(degree, gesture) => change('Degree', { degree }, gesture)}
    />
  );
}

function PathFactsList({ path }: { path: ShotPath }) {
  const desk = useDeskStore();
  const evaluated = useDesk((state) => state.evaluation?.paths.get(path.id));
  const kind = `${BASIS_NAMES[path.basis]}, ${path.closed ? 'closed' : 'open'}, ${path.points.length} points`;
  if (evaluated?.problem) {
    return (
      <>
        <Hint>{kind}</Hint>
        <Hint role="alert">{evaluated.problem}</Hint>
      </>
    );
  }
  const facts = evaluated?.facts;
  return (
    <>
      <Hint>{kind}</Hint>
      {facts && (
        <Facts aria-label="Facts">
          <dt>Length</dt>
          <dd>{showNumber(facts.length, 3)} m</dd>
          <dt>Tightest bend</dt>
          <dd>
            {facts.tightest
              ? `${showNumber(facts.tightest.radius, 2)} m at ${showNumber(facts.tightest.distance, 1)} m`
              : 'straight'}
          </dd>
          <dt>Kinks</dt>
          <dd>
            {facts.kinks.length === 0
              ? 'none'
              : `${facts.kinks.length}, first at ${showNumber(facts.kinks[0].distance, 1)} m`}
          </dd>
          <dt>Roughness</dt>
          <dd>
            {facts.roughness
              ? `${showNumber(facts.roughness.angleDeg, 1)}° at ${showNumber(facts.roughness.distance, 1)} m`
              : 'none'}
          </dd>
          {facts.roughness && (
            <>
              <dt>Short alternating bends</dt>
              <dd>{facts.roughness.bends}</dd>
            </>
          )}
          <dt>Spacing, longest to shortest</dt>
          <dd>{showNumber(facts.unevenness, 1)} : 1</dd>
          <dt>Climbs, falls</dt>
          <dd>
            {showNumber(facts.climb, 2)}, {showNumber(facts.fall, 2)} m
          </dd>
        </Facts>
      )}
      {facts?.roughness && (
        <Buttons>
          <Button onPress={() => startOperation(desk, 'smooth')}>Smooth it…</Button>
        </Buttons>
      )}
    </>
  );
}

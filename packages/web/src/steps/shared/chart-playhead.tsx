import { POSE, type Rider } from '@fleet-rail/core';
import { useEffect, useRef } from 'react';
import { usePlotArea, useXAxisDomain } from 'recharts';
import { useTheme } from 'styled-components';
import { poseAt } from '../../workers/evaluation/pose-at';
import { useLiveDeskStore } from '../../state/desk-store';

/** A rider's place in a chart by distance. It follows every frame without the chart being drawn anew. */
export function ChartPlayhead({ rider, place }: { rider: Rider; place?: (distance: number) => number }) {
  const desk = useLiveDeskStore();
  const theme = useTheme();
  const line = useRef<SVGLineElement>(null);
  const area = usePlotArea();
  const domain = useXAxisDomain();
  const { id } = rider;
  useEffect(() => {
    const pose = new Float64Array(POSE.size);
    const [low, high] = (domain ?? [0, 1]).map(Number);
    const move = () => {
      const { evaluation, frame } = desk.getState();
      const evaluated = evaluation?.riders.get(id);
      if (!line.current || !area || !evaluation || !evaluated) return;
      poseAt(evaluation, evaluated, frame, pose);
      const distance = place ? place(pose[POSE.distance]) : pose[POSE.distance];
      const x = area.x + (area.width * (distance - low)) / (high - low || 1);
      line.current.setAttribute('transform', `translate(${x} 0)`);
    };
    move();
    return desk.subscribe(move);
  }, [desk, id, area, domain, place]);
  if (!area) return null;
  return <line ref={line} y1={area.y} y2={area.y + area.height} stroke={theme.signal} strokeWidth={1.5} />;
}

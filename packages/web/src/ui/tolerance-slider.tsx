import { Slider, SliderThumb, SliderTrack } from 'react-aria-components';
import styled from 'styled-components';

const Box = styled(Slider)`
  padding: 2px 7px;
`;

const Track = styled(SliderTrack)`
  position: relative;
  height: 18px;
  &::before {
    content: '';
    position: absolute;
    top: 8px;
    left: -7px;
    right: -7px;
    height: 2px;
    background: ${({ theme }) => theme.hairline};
  }
`;

const Thumb = styled(SliderThumb)`
  top: 9px;
  width: 14px;
  height: 14px;
  border: 2px solid ${({ theme }) => theme.ink};
  border-radius: 50%;
  background: ${({ theme }) => theme.panel};
  cursor: ew-resize;
  &[data-focus-visible] {
    outline: 2px solid ${({ theme }) => theme.signal};
    outline-offset: 2px;
  }
`;

const STEPS = 100;

/** A slider with geometric steps, for amounts over several magnitudes: 1 mm to 1 m, for example. */
export function ToleranceSlider(props: {
  label: string;
  value: number;
  min: number;
  max: number;
  onChange: (value: number) => void;
}) {
  const { min, max } = props;
  const place = (value: number) => (STEPS * Math.log(value / min)) / Math.log(max / min);
  const valueAt = (at: number) => Number((min * (max / min) ** (at / STEPS)).toPrecision(2));
  return (
    <Box
      aria-label={props.label}
      minValue={0}
      maxValue={STEPS}
      value={Math.min(STEPS, Math.max(0, place(props.value)))}
      onChange={(at) => props.onChange(valueAt(at as number))}
    >
      <Track>
        <Thumb />
      </Track>
    </Box>
  );
}

/** Where the sun stands: north up, the rim is the horizon, the middle overhead. */
import { figure } from '@/units/format';

interface SunDialProps {
  azimuthDeg: number;
  elevationDeg: number;
}

const R = 34;

export function SunDial({ azimuthDeg, elevationDeg }: SunDialProps) {
  const turn = (azimuthDeg * Math.PI) / 180;
  const out = R * (1 - elevationDeg / 90);
  const [x, y] = [out * Math.sin(turn), -out * Math.cos(turn)];
  return (
    <g pointerEvents="none" transform="translate(52 58)">
      <circle r={R} fill="var(--color-sheet)" stroke="var(--color-field)" />
      <circle r={R * (1 - 10 / 90)} fill="none" stroke="var(--color-rule)" />
      <text y={-R - 4} fontSize="12.5" textAnchor="middle" fontWeight="600">
        N
      </text>
      <line x2={x} y2={y} stroke="var(--color-rule)" />
      <circle cx={x} cy={y} r="7" fill="var(--color-straw)" stroke="var(--color-ink)" />
      <text y={R + 16} fontSize="12.5" textAnchor="middle">
        {figure(azimuthDeg)}°, {figure(elevationDeg)}° high
      </text>
    </g>
  );
}

/**
 * The drawings on the cards of the drawing and correcting trays: what is given in grey, what comes of it in verdigris.
 */
import SvgIcon from '@mui/material/SvgIcon';
import type { HandTool } from '@/table/hand-store';
import { colours } from '@/ui/colours';

const made = 'made';
const given = 'given';

/** Lines of each drawing: what they are, and their path. */
const drawings: Record<HandTool, readonly (readonly [typeof made | typeof given, string])[]> = {
  outline: [[made, 'M4 18C5 9 10 14 12 9s5-5 8-4'], [given, 'M3 17h3v3H3zM18.5 3.5h3v3h-3z']],
  line: [[made, 'M4 19 20 5']],
  rectangle: [[made, 'M4 6.5h16v11H4z']],
  circle: [[made, 'M12 4a8 8 0 1 0 .01 0z'], [given, 'M11 11h2v2h-2z']],
  ellipse: [[made, 'M12 6.5c5 0 9 2.4 9 5.5s-4 5.5-9 5.5-9-2.4-9-5.5 4-5.5 9-5.5z']],
  arc: [[made, 'M4 17A9.5 9.5 0 0 1 20 17'], [given, 'M3 16h2.5v2.5H3zM18.5 16H21v2.5h-2.5z']],
  polygon: [[made, 'M12 3.5 20 9.3 17 19H7L4 9.3z']],
  slot: [[made, 'M7.5 8h9a4 4 0 0 1 0 8h-9a4 4 0 0 1 0-8z']],
  points: [[given, 'M4 18C5 8 12 16 20 6'], [made, 'M4 15.5 6.5 18 4 20.5 1.5 18zM20 3.5 22.5 6 20 8.5 17.5 6z']],
  trim: [[given, 'M12 3v18'], [made, 'M3 12h9'], [given, 'M13.5 12h2M18 12h2']],
  join: [[given, 'M3 17h6M15 7h6'], [made, 'M9 17c4 0 2-10 6-10']],
  corners: [[given, 'M5 4v3M17 19h3M5 19h.01'], [made, 'M5 7v6a6 6 0 0 0 6 6h6']],
  offset: [[given, 'M12 8.5a3.5 3.5 0 1 0 .01 0z'], [made, 'M12 4a8 8 0 1 0 .01 0z']],
  combine: [[made, 'M9 5.5a6 6 0 1 0 3 11.2 6 6 0 1 0 3-11.2 6 6 0 0 0-3 .8 6 6 0 0 0-3-.8z']],
  arrange: [[given, 'M4 3v18'], [made, 'M7 6h12v4H7zM7 14h7v4H7z']],
  follow: [[given, 'M12 3v18'], [made, 'M9 6 4 18h5zM15 6l5 12h-5z']],
}; // biome-ignore format: a table

export function HandIcon({ tool, isInHand }: { tool: HandTool; isInHand: boolean }) {
  return (
    <SvgIcon
      viewBox="0 0 24 24"
      sx={{ '--made': isInHand ? 'currentColor' : colours.verdigris, '--given': isInHand ? 'currentColor' : '#9A937F' }}
    >
      {drawings[tool].map(([what, d]) => (
        <path
          key={d}
          d={d}
          fill="none"
          stroke={`var(--${what})`}
          strokeWidth={what === made ? 1.9 : 1.4}
          strokeLinejoin="round"
          strokeLinecap="round"
        />
      ))}
    </SvgIcon>
  );
}

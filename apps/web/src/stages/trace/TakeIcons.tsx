/**
 * The drawings on the cards that say what in the picture is meant: the picture in grey, what comes of it in verdigris.
 */
import SvgIcon from '@mui/material/SvgIcon';
import type { ReactNode } from 'react';
import { colours } from '@/ui/colours';

const ghost = '#B9B2A3';

/** On a card that is in hand everything is drawn in the card's own colour. */
function Drawing({ children, isInHand }: { children: ReactNode; isInHand: boolean }) {
  return (
    <SvgIcon
      viewBox="0 0 24 24"
      sx={{ '--made': isInHand ? 'currentColor' : colours.verdigris, '--given': isInHand ? 'currentColor' : ghost }}
    >
      {children}
    </SvgIcon>
  );
}

const made = { fill: 'none', stroke: 'var(--made)', strokeWidth: 1.8, strokeLinejoin: 'round', strokeLinecap: 'round' } as const;
const given = { fill: 'var(--given)', fillOpacity: 0.55 } as const;

export const FilledShapeIcon = ({ isInHand }: { isInHand: boolean }) => (
  <Drawing isInHand={isInHand}>
    <path d="M4 16C4 9 8 4 13 4c5 0 8 4 7 9s-5 7-9 7-7-1-7-4z" {...given} />
    <path d="M4 16C4 9 8 4 13 4c5 0 8 4 7 9s-5 7-9 7-7-1-7-4z" {...made} />
  </Drawing>
);

export const DrawnLineIcon = ({ isInHand }: { isInHand: boolean }) => (
  <Drawing isInHand={isInHand}>
    <path d="M12 6a7 6 0 1 0 .01 0z" fill="none" stroke="var(--given)" strokeOpacity="0.55" strokeWidth="5" />
    <path d="M12 3.6a9.4 8.4 0 1 0 .01 0z" {...made} />
  </Drawing>
);

export const MiddlesIcon = ({ isInHand }: { isInHand: boolean }) => (
  <Drawing isInHand={isInHand}>
    <path d="M4 7h16M12 7v13" fill="none" stroke="var(--given)" strokeOpacity="0.55" strokeWidth="6" />
    <path d="M3 7h18M12 7v14" {...made} />
  </Drawing>
);

export const ThisOneIcon = ({ isInHand }: { isInHand: boolean }) => (
  <Drawing isInHand={isInHand}>
    <path d="M3 3h8v8H3zM14 4h7v6h-7z" {...given} />
    <path d="M4 14h9v7H4z" {...made} />
    <path d="M12 12l8 3.6-3.5 1.1L15.300 20.500z" fill="var(--made)" stroke="none" />
  </Drawing>
);

export const AlongEdgeIcon = ({ isInHand }: { isInHand: boolean }) => (
  <Drawing isInHand={isInHand}>
    <path d="M2 9c5-5 8 3 12-1s6-5 8-3v17H2z" {...given} />
    <path d="M2 9c5-5 8 3 12-1" {...made} />
    <circle cx="14" cy="8" r="2.600" fill="#fff" stroke="var(--made)" strokeWidth="1.6" />
    <path d="M16.500 6.500c2-1.500 4-2.500 5.500-1.500" {...made} strokeDasharray="1.500 3" />
  </Drawing>
);

export const LimitIcon = ({ isInHand }: { isInHand: boolean }) => (
  <Drawing isInHand={isInHand}>
    <path d="M2 4h8v6H2zM13 13h9v8h-9z" {...given} />
    <path d="M9 9h13v13H9z" {...made} strokeDasharray="3 2.600" />
  </Drawing>
);

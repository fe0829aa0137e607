/**
 * How each kind of mark is shown: its words, what each click is for, its card in the tray, and its look on the table. One entry, and
 * its words in the catalogue, are all that a new kind needs here.
 */
import AllOutOutlined from '@mui/icons-material/AllOutOutlined';
import CircleOutlined from '@mui/icons-material/CircleOutlined';
import CompareArrowsOutlined from '@mui/icons-material/CompareArrowsOutlined';
import CropSquareOutlined from '@mui/icons-material/CropSquareOutlined';
import HeightOutlined from '@mui/icons-material/HeightOutlined';
import HorizontalRuleOutlined from '@mui/icons-material/HorizontalRuleOutlined';
import SquareFootOutlined from '@mui/icons-material/SquareFootOutlined';
import StraightenOutlined from '@mui/icons-material/StraightenOutlined';
import type { MarkKind } from '@nuvet/core/trueup';
import type { ReactNode } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';

export interface MarkView {
  readonly word: string;
  /** What is asked for, in the order of the kind's `stated`. */
  readonly stated: readonly string[];
  /** What each click is for, in turn. */
  readonly clicks: readonly string[];
  /** Beside it on the table, of what was typed; without one it reads as what it measures. */
  reading?(stated: readonly string[]): string;
  /** Its card in the tray; checks have none, they are chosen from a list. */
  readonly card?: { readonly hotkey: string; readonly explanation: string; readonly icon: ReactNode };
  readonly look: {
    readonly colour: string;
    /** How its points are joined; in turn without one. */
    readonly lines?: 'closed' | 'rim' | 'squares';
    readonly isDashed?: boolean;
    /** Whether its points were found and not placed: they show no rings and cannot be picked up. */
    readonly isFound?: boolean;
  };
}

const t = words.trueUp;
const size = (wide: string | undefined, high: string | undefined): string => `${wide || t.widthUnknown} x ${high || t.heightUnknown}`;
const checked = { colour: colours.brass, isDashed: true };

export const markViews: Readonly<Record<MarkKind, MarkView>> = {
  'known-length': {
    word: t.knownLength,
    stated: [t.itsTrueLength],
    clicks: [t.knownLengthPrompt, t.clickTheOtherEnd],
    reading: ([length]) => length || t.lengthUnknown,
    card: { hotkey: 'K', explanation: t.knownLengthExplanation, icon: <StraightenOutlined /> },
    look: { colour: colours.verdigris },
  },
  frame: {
    word: t.frame,
    stated: [t.itsTrueWidth, t.itsTrueHeight],
    clicks: [t.framePrompt, t.clickTheNextCornerThisSide, t.clickTheThirdCorner, t.clickTheFourthCorner],
    reading: ([wide, high]) => size(wide, high),
    card: { hotkey: 'F', explanation: t.frameExplanation, icon: <CropSquareOutlined /> },
    look: { colour: colours.verdigris, lines: 'closed' },
  },
  level: {
    word: t.levelLine,
    stated: [],
    clicks: [t.levelPrompt, t.clickTheOtherEnd],
    reading: () => t.levelReading,
    card: { hotkey: 'L', explanation: t.levelExplanation, icon: <HorizontalRuleOutlined /> },
    look: { colour: colours.indigo },
  },
  plumb: {
    word: t.plumbLine,
    stated: [],
    clicks: [t.plumbPrompt, t.clickTheOtherEnd],
    reading: () => t.plumbReading,
    card: { hotkey: 'P', explanation: t.plumbExplanation, icon: <HeightOutlined /> },
    look: { colour: colours.indigo },
  },
  'right-angle': {
    word: t.rightAngle,
    stated: [],
    clicks: [t.rightAnglePrompt, t.clickOnTheCornerItself, t.clickOnTheOtherLeg],
    reading: () => '90°',
    card: { hotkey: 'R', explanation: t.rightAngleExplanation, icon: <SquareFootOutlined /> },
    look: { colour: colours.indigo },
  },
  circle: {
    word: t.circle,
    stated: [t.itsTrueDiameter],
    clicks: [t.circlePrompt, t.circlePromptTwo, t.circlePromptThree, t.morePointsImproveAccuracyClickThe],
    reading: ([diameter]) => (diameter ? `⌀ ${diameter}` : t.diameterUnknown),
    card: { hotkey: 'C', explanation: t.circleExplanation, icon: <CircleOutlined /> },
    look: { colour: colours.verdigris, lines: 'rim' },
  },
  box: {
    word: t.box,
    stated: [t.widthItMustHave, t.heightItMustHave],
    clicks: [],
    reading: ([wide, high]) => size(wide, high),
    card: { hotkey: 'B', explanation: t.boxExplanation, icon: <AllOutOutlined /> },
    look: { colour: colours.verdigris, lines: 'closed', isDashed: true, isFound: true },
  },
  clearance: {
    word: t.clearance,
    stated: [t.ballOrToolThatMustPass, t.clearanceAroundIt],
    clicks: [t.clearancePrompt, t.clickOnTheOtherSide],
    reading: ([passes]) => (passes ? t.takes(passes) : t.takesUnknown),
    card: { hotkey: 'G', explanation: t.clearanceExplanation, icon: <CompareArrowsOutlined /> },
    look: { colour: colours.verdigris },
  },
  'scale-card': {
    word: t.scaleCard,
    stated: [t.itsCheckLineMeasures],
    clicks: [],
    reading: () => t.scaleCardReading,
    look: { colour: colours.verdigris, lines: 'squares', isFound: true },
  },
  check: { word: t.distance, stated: [t.expectedLengthOptional], clicks: [t.distancePrompt, t.clickTheOtherEnd], look: checked },
  'check-angle': { word: t.angle, stated: [], clicks: [t.anglePrompt, t.clickOnItsCorner, t.clickOnTheOtherLeg], look: checked },
  'check-radius': {
    word: t.radius,
    stated: [t.statedRadiusIfAny],
    clicks: [t.radiusPrompt, t.radiusPromptTwo, t.radiusPromptThree],
    look: { ...checked, lines: 'rim' },
  },
  'check-along': {
    word: t.lengthAlong,
    stated: [t.expectedLengthOptional],
    clicks: [t.clickWhereTheLengthBegins, t.clickAlongItClickTheLast],
    look: checked,
  },
};

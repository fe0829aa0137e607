/**
 * The constants that true-up rests on, with unit and meaning. `npm run bench -- --sensitivity` varies each by a quarter either way
 * and prints what that changes.
 */

import { parametersOf } from '../numeric/parameters.ts';

export const parameters = parametersOf({
  handNoise: { value: 0.7, unit: 'px', meaning: 'Marks placed by hand are this far off, one deviation along each axis: common practice.' },
  priorWeight: { value: 4, unit: 'residuals', meaning: 'The noise known beforehand counts as so many residuals.' },
  modelSignificance: { value: 0.01, unit: 'chance', meaning: 'A richer model must explain what chance would in fewer cases than this.' },
  carriedTo: {
    value: 0.03,
    unit: 'share',
    meaning: 'What a model’s extra parameters must be known to, for hand-placed marks, before it is offered.',
  },
  maxStretch: { value: 0.15, unit: 'share', meaning: 'Beyond this a stretch is a wrong mark rather than a wrong scanner.' },
  maxShear: { value: 0.3, unit: 'share', meaning: 'The same of a shear.' },
  maxPerspectiveStretch: {
    value: 1.2,
    unit: 'share',
    meaning: 'The same of a stretch where the picture is a photograph, seen at a slant.',
  },
  minMarkDepth: {
    value: 0.1,
    unit: 'share',
    meaning: 'No mark of a photograph lies nearer to its horizon than this share of its middle’s depth.',
  },
  outlierSignificance: { value: 0.005, unit: 'chance', meaning: 'A residual this unlikely by chance is named.' },
  alsoOutlier: { value: 0.8, unit: 'share', meaning: 'Others that would explain this share of what the worst does are named with it.' },
  maxLeverage: { value: 0.95, unit: 'share', meaning: 'A mark that decides more alone is judged as if it decided this much.' },
  unitNearness: {
    value: 0.08,
    unit: 'log',
    meaning: 'A ratio of two statements this near to one of the units’ counts as it; 10 and 12 stay apart.',
  },
  minUnitRatio: { value: 2, unit: 'times', meaning: 'Statements that differ by less than this are no slip of units.' },
  minDepth: {
    value: 0.6,
    unit: 'share',
    meaning: 'What lies more than two thirds farther from the camera than the marks is left out: it is too coarse to be of use.',
  },
});

'use client';
/**
 * What Nuvet found in the picture, each with the one click that takes it.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Picture } from '@nuvet/core/job';
import { useState } from 'react';
import { colours } from '@/ui/colours';
import { Section } from '@/ui/Section';
import { words } from '@/words';
import { useJob } from '../../job/job-store';
import { type Suggestion, useSuggestions } from './use-suggestions';

export function Suggestions({ picture }: { picture: Picture }) {
  const { suggestions, isLooking } = useSuggestions(picture);
  if (isLooking) {
    return (
      <Typography variant="caption" color="textSecondary" role="status">
        {words.trueUp.lookingForLinesRulersAndPaper}
      </Typography>
    );
  }
  if (suggestions.length === 0) return null;
  return <FoundParts suggestions={suggestions} picture={picture} />;
}

/** All that was found, taken with one click; each part can be left out of it, or be taken by itself. */
function FoundParts({ suggestions, picture }: { suggestions: readonly Suggestion[]; picture: Picture }) {
  const run = useJob((s) => s.run);
  const [refused, setRefused] = useState<ReadonlySet<string>>(new Set());
  const [choices, setChoices] = useState<Readonly<Record<string, string>>>({});
  const choiceOf = ({ id, choices: all }: Suggestion): string => choices[id] ?? all[0] ?? '';
  const take = (suggestion: Suggestion) => {
    for (const mark of suggestion.marks(choiceOf(suggestion))) run({ do: 'add-mark', pictureId: picture.id, mark });
    if (suggestion.datum) run({ do: 'change-picture', pictureId: picture.id, change: { datum: suggestion.datum } });
  };
  const wanted = suggestions.filter(({ id }) => !refused.has(id));
  return (
    <Section title={words.trueUp.foundInThePicture}>
      {suggestions.length > 1 && (
        <Button
          fullWidth
          variant="contained"
          disabled={wanted.length === 0}
          onClick={() => wanted.forEach(take)}
          sx={{ lineHeight: 1.25, my: 0.5 }}
        >
          {togetherInWords(wanted.map(({ accept }) => accept))}
        </Button>
      )}
      {suggestions.map((suggestion) => (
        <Row
          key={suggestion.id}
          suggestion={suggestion}
          choice={choiceOf(suggestion)}
          onChoice={(choice) => setChoices({ ...choices, [suggestion.id]: choice })}
          isWanted={!refused.has(suggestion.id)}
          onWanted={
            suggestions.length > 1
              ? (on) => setRefused(new Set(on ? [...refused].filter((id) => id !== suggestion.id) : [...refused, suggestion.id]))
              : null
          }
          onTake={() => take(suggestion)}
        />
      ))}
    </Section>
  );
}

/** "Turn by +2.31° and use the ruler". */
function togetherInWords(parts: readonly string[]): string {
  const [first = words.trueUp.nothingChosen, ...rest] = parts.map((part, k) =>
    k === 0 ? part : `${part[0]?.toLowerCase()}${part.slice(1)}`,
  );
  const last = rest.pop();
  return last ? words.trueUp.listAnd([first, ...rest].join(', '), last) : first;
}

interface RowProps {
  readonly suggestion: Suggestion;
  readonly choice: string;
  readonly onChoice: (choice: string) => void;
  readonly isWanted: boolean;
  /** Null where it is the only one. */
  readonly onWanted: ((on: boolean) => void) | null;
  readonly onTake: () => void;
}

function Row({ suggestion, choice, onChoice, isWanted, onWanted, onTake: take }: RowProps) {
  return (
    <Box data-suggestion={suggestion.id} sx={{ py: 1, '& + &': { borderTop: `1px solid ${colours.line}` } }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        {onWanted && (
          <Checkbox
            size="small"
            checked={isWanted}
            onChange={(_, on) => onWanted(on)}
            slotProps={{ input: { 'aria-label': words.trueUp.includeFound(suggestion.accept) } }}
            sx={{ p: 0.25 }}
          />
        )}
        <Typography variant="body2" sx={{ flex: 1 }}>
          {suggestion.words}
        </Typography>
        {suggestion.choices.length > 0 && (
          <TextField
            select
            value={choice}
            onChange={(event) => onChoice(event.target.value)}
            slotProps={{ htmlInput: { 'aria-label': suggestion.words } }}
            sx={{ minWidth: 104 }}
          >
            {suggestion.choices.map((word) => (
              <MenuItem key={word} value={word}>
                {word}
              </MenuItem>
            ))}
          </TextField>
        )}
      </Box>
      <Button size="small" variant="outlined" sx={{ mt: 0.75 }} onClick={take}>
        {suggestion.accept}
      </Button>
    </Box>
  );
}

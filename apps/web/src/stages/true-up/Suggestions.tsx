'use client';
/**
 * What Nuvet found in the picture, each with the one click that takes it.
 */
import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import type { Picture } from '@nuvet/core/job';
import { useState } from 'react';
import { colours } from '@/ui/colours';
import { Section } from '../Docket';
import { useJob } from '../job-store';
import { type Suggestion, useSuggestions } from './use-suggestions';

export function Suggestions({ picture }: { picture: Picture }) {
  const { suggestions, isLooking } = useSuggestions(picture);
  if (isLooking) {
    return (
      <Typography variant="caption" color="textSecondary" role="status">
        Looking for lines, rulers and paper in the picture …
      </Typography>
    );
  }
  if (suggestions.length === 0) return null;
  return (
    <Section title="Found in the picture">
      {suggestions.map((suggestion) => (
        <Row key={suggestion.id} suggestion={suggestion} picture={picture} />
      ))}
    </Section>
  );
}

function Row({ suggestion, picture }: { suggestion: Suggestion; picture: Picture }) {
  const run = useJob((s) => s.run);
  const [choice, setChoice] = useState(suggestion.choices[0] ?? '');
  const take = () => {
    for (const mark of suggestion.marks(choice)) run({ do: 'add-mark', pictureId: picture.id, mark });
    if (suggestion.datum) run({ do: 'change-picture', pictureId: picture.id, change: { datum: suggestion.datum } });
  };
  return (
    <Box data-suggestion={suggestion.id} sx={{ py: 1, '& + &': { borderTop: `1px solid ${colours.line}` } }}>
      <Box sx={{ display: 'flex', gap: 1, alignItems: 'center' }}>
        <Typography variant="body2" sx={{ flex: 1 }}>
          {suggestion.words}
        </Typography>
        {suggestion.choices.length > 0 && (
          <TextField
            select
            value={choice}
            onChange={(event) => setChoice(event.target.value)}
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

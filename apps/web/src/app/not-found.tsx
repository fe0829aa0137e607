import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';
import { words } from '@/words';

export default function NotFound() {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', minHeight: '100vh' }}>
      <Box sx={{ textAlign: 'center', display: 'grid', gap: 2 }}>
        <Typography variant="h1">{words.app.thereIsNoJobAtThis}</Typography>
        <Typography>{words.app.itMayHaveBeenDeleted}</Typography>
        <Button href="/" variant="contained" sx={{ justifySelf: 'center' }}>
          {words.app.toAllJobs}
        </Button>
      </Box>
    </Box>
  );
}

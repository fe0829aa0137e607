import Box from '@mui/material/Box';
import Button from '@mui/material/Button';
import Typography from '@mui/material/Typography';

export default function NotFound() {
  return (
    <Box sx={{ display: 'grid', placeItems: 'center', minHeight: '100vh' }}>
      <Box sx={{ textAlign: 'center', display: 'grid', gap: 2 }}>
        <Typography variant="h1">There is no job at this address.</Typography>
        <Typography>It may have been deleted.</Typography>
        <Button href="/" variant="contained" sx={{ justifySelf: 'center' }}>
          To all jobs
        </Button>
      </Box>
    </Box>
  );
}

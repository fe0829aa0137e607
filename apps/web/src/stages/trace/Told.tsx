/** What was done unasked, in a sentence, with the one click that takes it back. */
import Alert from '@mui/material/Alert';
import Button from '@mui/material/Button';

interface Props {
  readonly text: string;
  readonly action: string;
  readonly onClick: () => void;
}

export function Told({ text, action, onClick }: Props) {
  return (
    <Alert
      severity="info"
      variant="outlined"
      action={
        <Button size="small" color="inherit" sx={{ whiteSpace: 'nowrap' }} onClick={onClick}>
          {action}
        </Button>
      }
    >
      {text}
    </Alert>
  );
}

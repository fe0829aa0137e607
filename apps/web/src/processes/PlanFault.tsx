'use client';
/** Why there is no plan of what is drawn and set. */
import Alert from '@mui/material/Alert';
import { useMaking } from '@/table/making-store';

export function PlanFault() {
  const fault = useMaking((s) => s.planFault);
  return fault ? (
    <Alert severity="warning" variant="outlined" role="alert">
      {fault}
    </Alert>
  ) : null;
}

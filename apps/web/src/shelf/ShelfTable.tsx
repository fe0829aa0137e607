'use client';
/**
 * A table of the shelf: sorted and filtered by its heads, edited in place; lengths are typed as people say them.
 */
import Alert from '@mui/material/Alert';
import Box from '@mui/material/Box';
import InputBase from '@mui/material/InputBase';
import {
  DataGrid,
  type GridColDef,
  type GridPreProcessEditCellProps,
  type GridRenderEditCellParams,
  type GridRowSelectionModel,
  useGridApiContext,
} from '@mui/x-data-grid';
import { printToType } from '@nuvet/core/length';
import { type Column, parsedValue, reasonOf, type Sheet, type ShelfItem, type ShelfKind, shelfKinds, textOf } from '@nuvet/core/shelf';
import { memo, useMemo, useRef, useState } from 'react';
import { colours } from '@/ui/colours';
import { words } from '@/words';
import { changeItem } from './shelf-edits';

type Unit = 'mm' | 'in';

interface Props {
  readonly kind: ShelfKind;
  readonly items: readonly ShelfItem[];
  readonly unit: Unit;
  readonly search: string;
  readonly chosen: readonly string[];
  readonly onChosen: (ids: string[]) => void;
  readonly nonce: string | null;
}

type Row = Record<string, unknown> & { readonly id: string };

/** A length in the table's unit, sheets as they are typed. */
function shown(column: Column, value: unknown, unit: Unit): string {
  if (value === null || value === undefined) return '';
  // While it is typed.
  if (typeof value === 'string') return value;
  if (column.kind === 'length') return printToType(value as number, unit);
  if (column.kind === 'sheets')
    return (value as Sheet[]).map((s) => `${printToType(s.widthMm, unit)} x ${printToType(s.heightMm, unit)} x ${s.count}`).join('; ');
  return textOf(column, value);
}

const widths: Readonly<Record<string, number>> = {
  name: 230,
  note: 220,
  sheets: 165,
  grain: 140,
  axes: 150,
  bedWidthMm: 100,
  bedHeightMm: 100,
};

/** Drawn anew only where it differs: thousands of rows take their time. */
export const ShelfTable = memo(function ShelfTable({ kind, items, unit, search, chosen, onChosen, nonce }: Props) {
  const { columns, schema } = shelfKinds[kind];
  const [fault, setFault] = useState<string | null>(null);
  const rows = useMemo(() => items.map((item): Row => ({ ...item.value, id: item.id })), [items]);
  const faultOf = (column: Column, row: Row, typed: unknown): string | null => {
    try {
      const value = typeof typed === 'string' ? parsedValue(column, typed, unit) : typed;
      const { id: _, ...rest } = row;
      const parsed = schema.safeParse({ ...rest, [column.field]: value });
      return parsed.success ? null : reasonOf(parsed.error.issues[0]);
    } catch (error) {
      return (error as Error).message;
    }
  };
  const heads = columns.map((column): GridColDef<Row> => {
    const { field, word, choices } = column;
    const isNumber = column.kind === 'length' || column.kind === 'number';
    const said = column.kind === 'length' || column.kind === 'sheets' ? unit : column.unit;
    return {
      field,
      headerName: said ? words.shelf.columnWithUnit(word, said) : word,
      type: choices ? 'singleSelect' : isNumber ? 'number' : 'string',
      ...(choices && { valueOptions: [...choices] }),
      width: widths[field] ?? 112,
      editable: true,
      align: isNumber ? 'right' : 'left',
      headerAlign: isNumber ? 'right' : 'left',
      valueFormatter: (value: unknown) => shown(column, value, unit),
      ...(column.kind === 'sheets' && { sortComparator: byCount }),
      ...(column.kind === 'colour' && { renderCell: ({ value }: { value?: unknown }) => <Colour hex={value as string | null} /> }),
      ...(!choices && {
        // What is typed stays text until it is read.
        valueParser: (typed: unknown) => typed,
        renderEditCell: (cell: GridRenderEditCellParams<Row>) => <TypedCell cell={cell} first={shown(column, cell.row[field], unit)} />,
        valueSetter: (typed: unknown, row: Row) => withTyped(row, column, typed, unit),
      }),
      preProcessEditCellProps: ({ props, row, hasChanged }: GridPreProcessEditCellProps) => {
        const found = hasChanged ? faultOf(column, row as Row, props.value) : null;
        setFault(found && `${word}: ${found.replace(`${field}: `, '')}`);
        return { ...props, error: found !== null };
      },
    };
  });
  const selection: GridRowSelectionModel = { type: 'include', ids: new Set(chosen) };
  return (
    <Box sx={{ display: 'flex', flexDirection: 'column', height: '100%' }}>
      <DataGrid<Row>
        key={`${kind} ${unit}`}
        rows={rows}
        columns={heads}
        density="compact"
        {...(nonce && { nonce })}
        checkboxSelection
        disableRowSelectionOnClick={false}
        rowSelectionModel={selection}
        onRowSelectionModelChange={({ type, ids }) =>
          onChosen(type === 'include' ? [...ids].map(String) : rows.map(({ id }) => id).filter((id) => !ids.has(id)))
        }
        filterModel={{ items: [], quickFilterValues: search.trim() === '' ? [] : search.trim().split(/\s+/) }}
        onCellEditStop={() => setFault(null)}
        processRowUpdate={async (next, before) => {
          const item = items.find(({ id }) => id === before.id);
          const { id: _, ...value } = next;
          const isWell = item ? await changeItem(item, schema.parse(value)) : false;
          return isWell ? next : before;
        }}
        onProcessRowUpdateError={(error: Error) => setFault(error.message)}
        initialState={{ pagination: { paginationModel: { pageSize: 100 } } }}
        pageSizeOptions={[100]}
        aria-label={words.shelf.aboutTheTable(kind)}
        localeText={{ noRowsLabel: words.shelf.nothingFound, noResultsOverlayLabel: words.shelf.nothingFound }}
        sx={{
          minHeight: 0,
          bgcolor: 'background.paper',
          borderColor: colours.line,
          fontVariantNumeric: 'tabular-nums',
          '--DataGrid-rowBorderColor': colours.line,
          '& .MuiDataGrid-columnHeaderTitle': { fontWeight: 650 },
          '& .MuiDataGrid-columnSeparator': { color: colours.line },
          '& .MuiDataGrid-footerContainer, & .MuiDataGrid-columnHeaders, & .MuiDataGrid-columnHeader': { borderColor: colours.line },
          '& .MuiDataGrid-selectedRowCount': { visibility: 'hidden' },
        }}
      />
      {fault && (
        <Alert severity="error" variant="outlined" sx={{ mt: 1 }}>
          {fault}
        </Alert>
      )}
    </Box>
  );
});

/** What means nothing in its column changes nothing; that it does not is said where it is typed. */
function withTyped(row: Row, column: Column, typed: unknown, unit: Unit): Row {
  if (typeof typed !== 'string') return { ...row, [column.field]: typed };
  try {
    return { ...row, [column.field]: parsedValue(column, typed, unit) };
  } catch {
    return row;
  }
}

/** More sheets come later. */
const byCount = (a: Sheet[], b: Sheet[]): number => countOf(a) - countOf(b);
const countOf = (sheets: Sheet[]): number => sheets.reduce((sum, { count }) => sum + count, 0);

function Colour({ hex }: { hex: string | null }) {
  if (!hex) return null;
  return (
    <Box sx={{ display: 'flex', alignItems: 'center', gap: 1, height: '100%' }}>
      <Box aria-hidden="true" sx={{ width: 18, height: 18, borderRadius: 0.5, bgcolor: hex, border: `1px solid ${colours.line}` }} />
      {hex}
    </Box>
  );
}

/** A cell while it is typed in: as text, so that lengths can be said as people say them. */
function TypedCell({ cell, first }: { cell: GridRenderEditCellParams<Row>; first: string }) {
  const api = useGridApiContext();
  const [typed, setTyped] = useState(first);
  const input = useRef<HTMLInputElement | null>(null);
  return (
    <InputBase
      fullWidth
      inputRef={(element: HTMLInputElement | null) => {
        if (!input.current && element) {
          element.focus();
          element.select();
        }
        input.current = element;
      }}
      value={typed}
      error={cell.error === true}
      onChange={(event) => {
        setTyped(event.target.value);
        void api.current.setEditCellValue({ id: cell.id, field: cell.field, value: event.target.value });
      }}
      inputProps={{ 'aria-label': cell.colDef.headerName, 'aria-invalid': cell.error === true }}
      sx={{ px: 1.25, fontSize: 13.5, color: cell.error ? colours.madder : undefined, '& input': { textAlign: cell.colDef.align } }}
    />
  );
}

import { createTable } from '@tanstack/table-core';
import type { RowData, Table, TableOptions, TableState } from '@tanstack/table-core';
import { useState } from 'preact/hooks';

type Given<Row extends RowData> = Omit<
  TableOptions<Row>,
  'state' | 'onStateChange' | 'renderFallbackValue'
>;

/** A table whose state lives in a component. */
export function useTable<Row extends RowData>(options: Given<Row>): Table<Row> {
  const [table] = useState(() =>
    createTable<Row>({ ...options, state: {}, onStateChange: () => {}, renderFallbackValue: null }),
  );
  const [state, setState] = useState<TableState>(() => ({
    ...table.initialState,
    ...(options.initialState as Partial<TableState>),
  }));
  table.setOptions((before) => ({ ...before, ...options, state, onStateChange: setState }));
  return table;
}

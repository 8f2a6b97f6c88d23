import type { Resources } from '../api/client';

/* The words of a page, as the server tells them. */
export type Row = Resources['RowResource'];
export type Word = Resources['WordResource'];
export type Editor = Resources['EditorResource'];

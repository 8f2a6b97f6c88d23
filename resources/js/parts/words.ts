import type { Shapes } from '../api/client';

/* The words of a page, as the server tells them. */
export type Row = Shapes['RowShape'];
export type Word = Shapes['WordShape'];
export type Editor = Shapes['EditorShape'];

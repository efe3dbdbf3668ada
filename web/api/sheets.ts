import fitsSheets from 'virtual:fits/sheets';
import type { SavedSheet } from '../../contract/sheet.ts';
import { useGet } from './useGet.ts';

/** The sheets a teacher keeps, the last changed first. */
export const useSheets = () => useGet<SavedSheet[]>('/sheets', fitsSheets);

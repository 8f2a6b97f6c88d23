import { api, ask, type Resources } from './client';

/** The records of a type that best fit what was typed, not counted any further. */
export async function findRecords(type: string, search: string, most = 20): Promise<Resources['RecordResource'][]> {
    const page = await ask(api.GET('/api/records/{type}', { params: { path: { type }, query: { search, perPage: most, total: 'no' } } }));
    return page.rows;
}

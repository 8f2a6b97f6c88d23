import { api, ask, type Resources } from '../../api/client';

/** How the history of a record is asked for, page by page: the screen begins it while the record itself is still on its way. */
export function historyOf(type: string, id: number) {
    return {
        queryKey: ['account', type, id, 'pages'],
        initialPageParam: undefined as number | undefined,
        queryFn: ({ pageParam }: { pageParam: number | undefined }) =>
            ask(api.GET('/api/records/{type}/{id}/account', { params: { path: { type, id }, query: { before: pageParam } } })),
        getNextPageParam: (page: Resources['Account']) => page.before ?? undefined,
    };
}

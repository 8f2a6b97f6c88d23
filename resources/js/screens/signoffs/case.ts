import { api, ask, type Resources } from '../../api/client';

/** Asks for all there is to see of a sign-off; anew when it has moved. */
export const caseQuery = (signOff: Resources['SignOffResource'] | undefined, enabled = signOff !== undefined) => ({
    queryKey: ['sign-offs', 'case', signOff?.id, signOff?.status, signOff?.seats.length],
    enabled,
    queryFn: () => ask(api.GET('/api/sign-offs/{id}', { params: { path: { id: signOff?.id ?? 0 } } })),
});

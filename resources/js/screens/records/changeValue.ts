import type { QueryClient } from '@tanstack/svelte-query';
import { api, ask, said, type Resources } from '../../api/client';
import type { Json } from '../../state/pointer';
import { toasts } from '../../state/toasts.svelte';
import { say } from '../../state/words';

type Record = Pick<Resources['RecordResource'], 'type' | 'id' | 'number' | 'version'>;

/** Changes one value of a record where it stands, and tells what came of it; everything that is shown is read again. */
export async function changeValue(client: QueryClient, record: Record, field: Resources['FieldResource'], value: Json): Promise<void> {
    try {
        const saved = await ask(
            api.PATCH('/api/records/{type}/{id}', {
                params: { path: { type: record.type, id: record.id } },
                body: { version: record.version, values: { [field.name]: value } },
            }),
        );
        const fired = saved.fired.length ? ` ${saved.fired.map((rule) => rule.name).join(', ')} fired.` : '';
        toasts.tell(`${record.number}: ${field.label} is ${saved.record.shown[field.name] || say('empty')}.${fired}`);
    } catch (thrown) {
        toasts.complain(said(thrown));
    }
    await client.invalidateQueries();
}

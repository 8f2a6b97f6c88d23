<script lang="ts">
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { go, route } from '../../router';
    import { crumbs } from '../../state/crumbs.svelte';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import AccountLeaf from './AccountLeaf.svelte';
    import { historyOf } from './history';
    import Facts from './Facts.svelte';
    import Confirm from '../../parts/Confirm.svelte';
    import RecordForm from './RecordForm.svelte';

    const client = useQueryClient();
    const typeName = $derived(String(route.params.type));
    const type = $derived(session.schema?.types.find((candidate) => candidate.name === typeName));
    const isNew = $derived(route.pathname.endsWith('/new'));
    const id = $derived(Number((route.params as { id?: string }).id));
    let editing = $state(false);
    let fresh = $state<string[]>([]);
    let deleting = $state(false);

    const record = createQuery(() => ({
        queryKey: ['record', typeName, id],
        enabled: !isNew && Number.isInteger(id) && type !== undefined,
        queryFn: () => ask(api.GET('/api/records/{type}/{id}', { params: { path: { type: typeName, id } } })),
        // What others change is seen as it happens, but never under the hands of whoever writes.
        refetchInterval: editing ? false : 5000,
    }));
    $effect(() => {
        if (!isNew && Number.isInteger(id) && type) void client.prefetchInfiniteQuery(historyOf(typeName, id));
    });
    let known: Resources['RecordResource'] | undefined;
    $effect(() => {
        const now = record.data;
        if (known && known.id === now?.id && known.version !== now.version)
            void client.invalidateQueries({ queryKey: ['account', typeName, now.id] });
        known = now;
    });
    const signOffs = createQuery(() => ({
        queryKey: ['sign-offs', 'of', typeName, id],
        enabled: !isNew && Number.isInteger(id) && type !== undefined,
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/sign-offs', { params: { path: { type: typeName, id } } })),
    }));
    const slips = createQuery(() => ({
        queryKey: ['slips', 'of', typeName, id],
        enabled: !isNew && Number.isInteger(id) && type !== undefined,
        queryFn: () => ask(api.GET('/api/records/{type}/{id}/slips', { params: { path: { type: typeName, id } } })),
    }));
    const lock = $derived(signOffs.data?.find((one) => one.locks));
    const waits = $derived((signOffs.data ?? []).filter((one) => one.mine));
    $effect(() => {
        void id;
        editing = false;
        fresh = [];
    });
    $effect(() =>
        crumbs.set(
            { label: 'Records', to: '/records/ticket' },
            { label: type?.plural ?? '', to: `/records/${typeName}` },
            { label: isNew ? 'New' : (record.data?.number ?? '…') },
        ),
    );

    /** What the save returns is what the screen shows: the rules' changes included, and marked. */
    function saved(answer: Resources['SavedResource'], given: string[]) {
        const before = record.data;
        const changed = Object.keys(answer.record.values).filter((name) => answer.record.values[name] !== before?.values[name]);
        client.setQueryData(['record', typeName, answer.record.id], answer.record);
        for (const key of ['account', 'sign-offs', 'records', 'tasks', 'ledger', 'today', 'rules', 'counts'])
            void client.invalidateQueries({ queryKey: [key] });
        editing = false;
        fresh = [];
        const names = answer.fired.map((fired) => fired.name);
        toasts.tell(
            answer.entry === null
                ? 'Nothing had changed, so nothing was saved.'
                : names.length
                  ? `Saved. ${names.join(', ')} fired.`
                  : 'Saved. No rule fired.',
        );
        if (isNew) go(`/records/${typeName}/${answer.record.id}`);
        else requestAnimationFrame(() => (fresh = changed.filter((name) => !given.includes(name) && !name.startsWith('updated'))));
    }

    async function remove() {
        const gone = record.data;
        deleting = false;
        if (!gone) return;
        try {
            await ask(
                api.DELETE('/api/records/{type}/{id}', {
                    params: { path: { type: typeName, id: gone.id }, query: { version: gone.version } },
                }),
            );
            void client.invalidateQueries();
            go(`/records/${typeName}`);
            toasts.tell(`${gone.number} is deleted.`, { label: 'Bring it back', run: () => void restore(gone.id) });
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    async function restore(gone: number) {
        try {
            await ask(api.POST('/api/records/{type}/{id}/restore', { params: { path: { type: typeName, id: gone } } }));
            void client.invalidateQueries();
            go(`/records/${typeName}/${gone}`);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
    }

    function key(event: KeyboardEvent) {
        const tag = (event.target as HTMLElement).tagName;
        if (
            event.key === 'e' &&
            !editing &&
            !isNew &&
            !lock &&
            !['INPUT', 'TEXTAREA', 'SELECT'].includes(tag) &&
            !event.ctrlKey &&
            !event.metaKey &&
            record.data?.may.includes('change')
        ) {
            event.preventDefault();
            editing = true;
        }
    }
</script>

<svelte:window onkeydown={key} />

{#if type && isNew}
    <div class="spread grid-cols-[minmax(0,1fr)]">
        <section class="leaf solo">
            {#key typeName}<RecordForm {type} record={null} onsaved={saved} oncancel={() => go(`/records/${typeName}`)} />{/key}
        </section>
    </div>
{:else if type && record.data}
    <div class="spread grid-cols-[minmax(0,520fr)_minmax(0,620fr)]">
        <section class="leaf left">
            {#if editing}
                <RecordForm
                    {type}
                    record={record.data}
                    onsaved={saved}
                    oncancel={() => (editing = false)}
                    onreload={() => record.refetch()}
                />
            {:else}
                <Facts
                    {type}
                    record={record.data}
                    {fresh}
                    {lock}
                    {waits}
                    onedit={() => (editing = true)}
                    ondelete={() => (deleting = true)}
                />
            {/if}
        </section>
        <AccountLeaf
            {type}
            record={record.data}
            may={record.data.may.includes('change')}
            signOffs={signOffs.data ?? []}
            slips={slips.data ?? []}
        />
    </div>
{:else}
    <div class="spread">
        <section class="leaf solo">
            <div class="empty">
                {#if record.isError || !type}
                    <h2>It cannot be opened.</h2>
                    <p>{type ? said(record.error) : `There is no record type “${typeName}”.`}</p>
                    {#if type && session.may('delete', type.name)}<p class="mt-3">
                            <button type="button" class="btn" onclick={() => restore(id)}>Bring it back, if it was deleted</button>
                        </p>{/if}
                {:else}Opening…{/if}
            </div>
        </section>
    </div>
{/if}

{#if deleting && record.data}
    <Confirm title="Delete {record.data.number}?" go="Delete" danger onconfirm={remove} onclose={() => (deleting = false)}>
        <p>Rules that wait for a deletion answer. Its history stays, and it can be brought back under its own number.</p>
    </Confirm>
{/if}

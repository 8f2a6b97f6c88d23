<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, said, type Resources } from '../../api/client';
    import { crumbs } from '../../state/crumbs.svelte';
    import type { JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import { toasts } from '../../state/toasts.svelte';
    import { Kept, type Draft } from './kept.svelte';
    import KeptFrame from './KeptFrame.svelte';
    import RouteBar from './RouteBar.svelte';
    import { counted, say } from '../../state/words';

    type Edited = Draft & { type: string; steps: JsonObject[]; running: number };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Routes of sign-offs' });
    const client = useQueryClient();
    const routes = createQuery(() => ({ queryKey: ['routes'], queryFn: () => ask(api.GET('/api/routes')) }));
    const kept = new Kept<Edited>(client, 'routes');
    const BEGUN: JsonObject = { who: { kind: 'people', people: [{ kind: 'manager', of: { kind: 'owner' } }] } };
    const types = $derived((session.schema?.types ?? []).filter((type) => type.owner));
    let moving = $state(false);

    const open = (one: Resources['RouteResource']) =>
        kept.open({
            id: one.id,
            version: one.version,
            name: one.name,
            type: one.recordType,
            steps: one.steps as JsonObject[],
            running: one.running,
        });
    const running = createQuery(() => ({
        queryKey: ['routes', 'running', kept.editing?.id],
        enabled: kept.editing?.id != null && kept.editing.running > 0,
        queryFn: () => ask(api.GET('/api/routes/{id}/running', { params: { path: { id: kept.editing?.id ?? 0 } } })),
    }));

    const keep = () =>
        kept.keep<unknown>(
            ({ id, version, name, type, steps }) =>
                id === null
                    ? ask(api.POST('/api/routes', { body: { recordType: type, name, steps } }))
                    : ask(api.PUT('/api/routes/{id}', { params: { path: { id } }, body: { version, name, steps } })),
            ({ name }) => `“${name}” is saved. Sign-offs that run go on as they began; new ones take it.`,
        );

    async function move(ids: number[]) {
        const id = kept.editing?.id;
        if (id == null) return;
        moving = true;
        try {
            await ask(api.POST('/api/routes/{id}/move', { params: { path: { id } }, body: { ids } }));
            toasts.tell(
                counted(ids.length, [
                    '# sign-off moved. The step at hand has begun anew.',
                    '# sign-offs moved. The step at hand has begun anew.',
                ]),
            );
            kept.open(null);
        } catch (thrown) {
            toasts.complain(said(thrown));
        }
        moving = false;
        for (const key of ['routes', 'sign-offs', 'today']) void client.invalidateQueries({ queryKey: [key] });
    }
</script>

<KeptFrame
    {kept}
    title="Routes of sign-offs"
    sub="Who has to agree, step after step, said once for several rules."
    items={routes.data}
    fresh="New"
    onnew={() => kept.open({ id: null, version: 0, name: '', type: 'quote', steps: [BEGUN], running: 0 })}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void kept.delete((id) => ask(api.DELETE('/api/routes/{id}', { params: { path: { id } } })))}
    none={['No route is kept yet.', 'A route that several rules take is written once here. Any rule can also write its own.']}
    idle={['A route is a list of steps.', 'Choose one to see whom it asks, and which rules take it.']}
    loses="A route that a rule takes cannot be deleted."
>
    {#snippet row(one)}
        <span class="flex items-baseline gap-3">
            <span class="min-w-0 flex-1"
                ><b class="font-semibold">{one.name}</b> <span class="mini">{session.type(one.recordType).plural}</span></span
            >
            {#if one.running}<span class="figures text-[12px] text-marigold">{one.running} on an earlier version</span>{/if}
        </span>
        <span class="block text-ink-2">{one.said}</span>
        {#if one.problem}<span class="block text-madder">{one.problem}</span>{/if}
        <span class="mini block">{one.rules.length ? `taken by ${one.rules.join(', ')}` : 'no rule takes it'}</span>
    {/snippet}
    {#snippet besides(edited)}
        <Select placeholder="" class="max-w-44" aria-label="Of" bind:value={edited.type} disabled={edited.id !== null}
            >{#each types as type (type.name)}<option value={type.name}>{type.plural}</option>{/each}</Select
        >
    {/snippet}
    {#snippet editor(edited)}
        {#key `${edited.id}:${edited.type}`}
            <RouteBar type={edited.type} steps={edited.steps} onchange={(steps) => (edited.steps = steps)} />
        {/key}
        {#if edited.running}
            <h2 class="mt-7 text-[16px]">Running on an earlier version</h2>
            <p class="mt-1 mb-2 text-ink-2">They go on as they began. Moved, what was agreed to stays, and the step at hand begins anew.</p>
            {#each running.data ?? [] as one (one.id)}
                <div class="grid grid-cols-[1fr_1fr_1fr] gap-3 border-b border-ruled py-1.5">
                    <span class="truncate"
                        ><b class="font-medium">{one.recordTitle}</b> <span class="figures mini">{one.recordNumber}</span></span
                    >
                    <span class="text-ink-3">now {one.now.join(', ') || say('nobody')}</span>
                    <span>then {one.then.join(', ') || 'nobody: it would end'}</span>
                </div>
            {/each}
            {#if running.data?.length && session.me?.mayEditRules}
                <button
                    type="button"
                    class="btn mt-3"
                    disabled={moving}
                    onclick={() => void move((running.data ?? []).map((one) => one.id))}>Move all of them</button
                >
            {/if}
        {/if}
    {/snippet}
</KeptFrame>

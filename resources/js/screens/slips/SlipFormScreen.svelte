<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import LetterFields from '../../parts/LetterFields.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import type { JsonObject } from '../../state/pointer';
    import { session } from '../../state/session.svelte';
    import AskedBar from '../library/AskedBar.svelte';
    import { Kept, type Draft } from '../library/kept.svelte';
    import KeptFrame from '../library/KeptFrame.svelte';
    import SlipPreview from './SlipPreview.svelte';

    type Slip = Draft & { type: string; subject: string; body: string; asks: JsonObject[] };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Reply slips' });
    const slips = createQuery(() => ({ queryKey: ['slip-forms'], queryFn: () => ask(api.GET('/api/slip-forms')) }));
    const kept = new Kept<Slip>(useQueryClient(), 'slip-forms');
    const BEGUN: JsonObject = { kind: 'choice', label: 'Is it done?', options: ['Done', 'Not done'], needed: true };
    const id = $derived(kept.editing?.id ?? null);
    const version = $derived(kept.editing?.version ?? 0);
    const versions = createQuery(() => ({
        queryKey: ['slip-form-versions', id, version],
        enabled: id !== null,
        queryFn: () => ask(api.GET('/api/slip-forms/{id}/versions', { params: { path: { id: id ?? 0 } } })),
    }));
    let opened = $state(0);
    let part = $state<'write' | 'look'>('write');

    function show(slip: Slip) {
        kept.open(slip);
        opened++;
    }

    const open = (one: Resources['SlipFormResource']) => show({ ...one, type: one.recordType, asks: one.asks as JsonObject[] });
    const begin = () =>
        show({ id: null, version: 0, name: '', type: session.schema?.types[0]?.name ?? '', subject: '', body: '', asks: [BEGUN] });

    // The first slip lies open.

    async function keep() {
        const done = await kept.keep(
            ({ id, version, name, type, subject, body, asks }) =>
                id === null
                    ? ask(api.POST('/api/slip-forms', { body: { recordType: type, name, subject, body, asks } }))
                    : ask(api.PUT('/api/slip-forms/{id}', { params: { path: { id } }, body: { version, name, subject, body, asks } })),
            (_, slip) => `Version ${slip.version} of “${slip.name}” is saved. Slips that are out stay as they were.`,
        );
        if (done) open(done);
    }

    async function remove() {
        await kept.delete((id) => ask(api.DELETE('/api/slip-forms/{id}', { params: { path: { id } } })));
        const first = slips.data?.[0];
        if (!kept.editing && first) open(first);
    }
</script>

<KeptFrame
    {kept}
    title="Reply slips"
    sub="What people answer on a page of their own; rules send the latest version."
    items={slips.data}
    fresh="New"
    onnew={begin}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void remove()}
    none={['No slip is kept yet.', 'A slip is written once and sent by as many rules as you like, to twenty people or three thousand.']}
    idle={['Slips are sent by rules.', 'Choose one to see what it shows and asks.']}
    loses="What was sent stays as it was. A slip that a rule sends cannot be deleted."
    keeps={id === null ? 'Save the slip' : `Save as version ${version + 1}`}
>
    {#snippet row(one)}
        <b class="font-semibold">{one.name}</b>
        <span class="mini block truncate"
            >{session.type(one.recordType).plural} · version {one.version}{one.rules.length
                ? ` · ${one.rules.join(', ')}`
                : ' · no rule sends it'}</span
        >
        {#if one.problem}<span class="block text-madder">{one.problem}</span>{/if}
    {/snippet}
    {#snippet besides(edited)}
        <Select placeholder="" class="max-w-36" aria-label="About" bind:value={edited.type} disabled={edited.id !== null}
            >{#each session.schema?.types ?? [] as one (one.name)}<option value={one.name}>{one.plural}</option>{/each}</Select
        >
    {/snippet}
    {#snippet editor(edited)}
        <div class="segments mb-3 inline-flex" role="group" aria-label="Write or look">
            <button type="button" aria-pressed={part === 'write'} onclick={() => (part = 'write')}>Write</button>
            <button type="button" aria-pressed={part === 'look'} onclick={() => (part = 'look')}>Look at the page</button>
        </div>
        <div class={part === 'write' ? '' : 'hidden'}>
            {#key `${opened}:${edited.type}`}
                <h2 class="mb-1">What they are asked</h2>
                <AskedBar type={edited.type} asks={edited.asks} onchange={(asks) => (edited.asks = asks)} />
                <h2 class="mt-5 mb-1">What they see</h2>
                <LetterFields
                    type={edited.type}
                    bind:subject={edited.subject}
                    bind:body={edited.body}
                    problems={{ subject: kept.problem('/subject'), body: kept.problem('/body') }}
                />
            {/key}
        </div>
        {#if part === 'look'}
            <SlipPreview type={edited.type} subject={edited.subject} body={edited.body} asks={edited.asks} />
        {/if}
    {/snippet}
    {#snippet foot()}
        <p class="mini shrink-0 border-t border-ruled px-7 py-2">
            {(versions.data ?? [])
                .slice(0, 3)
                .map((one) => `version ${one.number}: ${one.by}, ${moment(one.at)}`)
                .join(' · ')}
        </p>
    {/snippet}
</KeptFrame>

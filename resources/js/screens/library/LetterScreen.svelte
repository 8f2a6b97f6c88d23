<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import LetterFields from '../../parts/LetterFields.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import { moment } from '../../state/moments';
    import { session } from '../../state/session.svelte';
    import { Kept, type Draft } from './kept.svelte';
    import KeptFrame from './KeptFrame.svelte';

    type Letter = Draft & { type: string; subject: string; body: string };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Letters' });
    const letters = createQuery(() => ({ queryKey: ['letters'], queryFn: () => ask(api.GET('/api/letters')) }));
    const kept = new Kept<Letter>(useQueryClient(), 'letters');
    const id = $derived(kept.editing?.id ?? null);
    const version = $derived(kept.editing?.version ?? 0);
    const versions = createQuery(() => ({
        queryKey: ['letter-versions', id, version],
        enabled: id !== null,
        queryFn: () => ask(api.GET('/api/letters/{id}/versions', { params: { path: { id: id ?? 0 } } })),
    }));
    let opened = $state(0);

    function show(letter: Letter) {
        kept.open(letter);
        opened++;
    }

    const open = (one: Resources['LetterResource']) =>
        show({ id: one.id, version: one.version, name: one.name, type: one.recordType, subject: one.subject, body: one.body });
    const begin = () => show({ id: null, version: 0, name: '', type: session.schema?.types[0]?.name ?? '', subject: '', body: '' });

    // The first letter lies open.

    async function keep() {
        const done = await kept.keep(
            ({ id, version, name, type, subject, body }) =>
                id === null
                    ? ask(api.POST('/api/letters', { body: { recordType: type, name, subject, body } }))
                    : ask(api.PUT('/api/letters/{id}', { params: { path: { id } }, body: { version, name, subject, body } })),
            (_, letter) => `Version ${letter.version} of “${letter.name}” is saved.`,
        );
        if (done) open(done);
    }

    async function remove() {
        await kept.delete((id) => ask(api.DELETE('/api/letters/{id}', { params: { path: { id } } })));
        const first = letters.data?.[0];
        if (!kept.editing && first) open(first);
    }
</script>

<KeptFrame
    {kept}
    title="Letters"
    sub="Kept once; rules send the latest version."
    items={letters.data}
    fresh="New"
    onnew={begin}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void remove()}
    none={['No letter yet.', 'A letter is written once and sent by as many rules as you like.']}
    idle={['Letters are sent by rules.', 'Choose one to see what it says.']}
    loses="What was sent stays on the accounts. A letter that a rule sends cannot be deleted."
    keeps={id === null ? 'Save the letter' : `Save as version ${version + 1}`}
>
    {#snippet row(one)}
        <b class="font-semibold">{one.name}</b>
        <span class="mini block truncate"
            >{session.type(one.recordType).plural} · version {one.version}{one.rules.length
                ? ` · ${one.rules.join(', ')}`
                : ' · no rule sends it'}</span
        >
    {/snippet}
    {#snippet besides(edited)}
        <Select placeholder="" class="max-w-44" aria-label="About" bind:value={edited.type} disabled={edited.id !== null}
            >{#each session.schema?.types ?? [] as one (one.name)}<option value={one.name}>{one.plural}</option>{/each}</Select
        >
    {/snippet}
    {#snippet editor(edited)}
        {#key `${opened}:${edited.type}`}
            <LetterFields
                type={edited.type}
                bind:subject={edited.subject}
                bind:body={edited.body}
                problems={{ subject: kept.problem('/subject'), body: kept.problem('/body') }}
            />
        {/key}
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

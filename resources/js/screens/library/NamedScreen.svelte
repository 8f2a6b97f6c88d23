<script lang="ts">
    import { Select } from 'flowbite-svelte';
    import { createQuery, useQueryClient } from '@tanstack/svelte-query';
    import { api, ask, type Resources } from '../../api/client';
    import FilterBar from '../../parts/FilterBar.svelte';
    import { crumbs } from '../../state/crumbs.svelte';
    import type { ConditionDraft } from '../../state/written';
    import { session } from '../../state/session.svelte';
    import { Kept, type Draft } from './kept.svelte';
    import KeptFrame from './KeptFrame.svelte';
    import { counted } from '../../state/words';

    type Named = Draft & { type: string; file: ConditionDraft | null };

    crumbs.set({ label: 'Setup', to: '/setup' }, { label: 'Named conditions' });
    const named = createQuery(() => ({ queryKey: ['named'], queryFn: () => ask(api.GET('/api/named-conditions')) }));
    const kept = new Kept<Named>(useQueryClient(), 'named');

    const open = (one: Resources['NamedResource']) =>
        kept.open({ id: one.id, version: one.version, name: one.name, type: one.recordType, file: one.file as ConditionDraft });

    const keep = () =>
        kept.keep<unknown>(
            ({ id, version, name, type, file }) => {
                const conditions = file ?? { kind: 'all', of: [] };
                return id === null
                    ? ask(api.POST('/api/named-conditions', { body: { recordType: type, name, file: conditions } }))
                    : ask(api.PUT('/api/named-conditions/{id}', { params: { path: { id } }, body: { version, name, file: conditions } }));
            },
            ({ name }) => `“${name}” is saved. Rules that use it mean this from now on.`,
        );
</script>

<KeptFrame
    {kept}
    title="Named conditions"
    sub="An audience is described once, for every rule."
    items={named.data}
    fresh="New"
    onnew={() => kept.open({ id: null, version: 0, name: '', type: session.schema?.types[0]?.name ?? '', file: null })}
    onopen={open}
    onkeep={() => void keep()}
    ondelete={() => void kept.delete((id) => ask(api.DELETE('/api/named-conditions/{id}', { params: { path: { id } } })))}
    none={['No condition has a name yet.', 'Describe a region, a team’s customers or any other audience once, and use it in every rule.']}
    idle={['What several rules mean is said once.', 'Choose a condition to see what it asks, and which rules use it.']}
    loses="A condition that a rule uses cannot be deleted."
>
    {#snippet row(one)}
        <span class="flex items-baseline gap-3">
            <span class="min-w-0 flex-1"
                ><b class="font-semibold">{one.name}</b> <span class="mini">{session.type(one.recordType).plural}</span></span
            >
            <span class="figures text-[12px] text-ink-2"
                >{one.matching === null ? 'needs correcting' : counted(one.matching, ['# record now', '# records now'])}</span
            >
        </span>
        <span class="block text-ink-2">{one.reading.aloud}</span>
        <span class="mini block">{one.rules.length ? `used by ${one.rules.join(', ')}` : 'no rule uses it'}</span>
    {/snippet}
    {#snippet besides(edited)}
        <Select placeholder="" class="max-w-44" aria-label="Of" bind:value={edited.type} disabled={edited.id !== null}
            >{#each session.schema?.types ?? [] as type (type.name)}<option value={type.name}>{type.plural}</option>{/each}</Select
        >
    {/snippet}
    {#snippet editor(edited)}
        {#key `${edited.id}:${edited.type}`}
            <FilterBar type={edited.type} filter={edited.file} onchange={(file) => (edited.file = file)} />
        {/key}
    {/snippet}
</KeptFrame>
